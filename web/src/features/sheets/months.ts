/** The months, by their numbers from 1. */
import { t } from "../../words/words";
export const MONTHS = [
  t("January"),
  t("February"),
  t("March"),
  t("April"),
  t("May"),
  t("June"),
  t("July"),
  t("August"),
  t("September"),
  t("October"),
  t("November"),
  t("December"),
].map((name, k) => [String(k + 1), name] as const);
