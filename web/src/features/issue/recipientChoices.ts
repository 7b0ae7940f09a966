/** What recipients can be sent, and how, in the words of the screen. */
import type { RecipientSpec } from "../../api/client";
import { choicesOf } from "../../components/choices";
import { t } from "../../words/words";

export type Form = RecipientSpec["forms"][number];

export const FORMS = choicesOf<Form>({ pdf: "PDF", dxf: "DXF", svg: "SVG", png: "PNG", model: t("Model") });
export const DELIVERIES = choicesOf<RecipientSpec["delivery"]>({
  folder: t("Into a folder"),
  mail: t("By mail"),
  link: t("By a link"),
});
export const COLOURS = choicesOf<RecipientSpec["colours"]>({
  "": t("By plot settings"),
  full: t("In colour"),
  grey: t("In grey"),
  black: t("In black"),
  chosen: t("Black with chosen colours"),
});
export const PAPERS = [
  ["", t("Full size")],
  ["A3", t("Reduced to A3")],
  ["A4", t("Reduced to A4")],
  ["A2", t("Reduced to A2")],
  ["A1", t("Reduced to A1")],
] as const;
