/** Line roles, and classes of the open standard, as the screen has them. */
import { t } from "../words/words";

const ROLES: Readonly<Record<string, string>> = {
  cut: t("cut"),
  profile: t("profile"),
  edge: t("edge"),
  seam: t("seam"),
  far: t("far"),
  overhead: t("overhead"),
  hidden: t("hidden"),
  symbol: t("symbol"),
};

export const roleWord = (role: string) => ROLES[role] ?? role;
