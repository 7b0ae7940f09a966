/** What people are called in a project, and what they do there. */
import { t } from "../words/words";
export const ROLE_NAMES: Record<string, string> = {
  owner: t("Owner"),
  drafter: t("Drafter"),
  checker: t("Checker"),
  reader: t("Reader"),
};

/** The roles that an owner gives, with what each may do. */
export const GIVEN_ROLES = [
  ["drafter", t("Drafter: changes and issues it")],
  ["checker", t("Checker: checks and signs")],
  ["reader", t("Reader: looks and plots")],
] as const;
