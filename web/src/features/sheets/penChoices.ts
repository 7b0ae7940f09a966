/** The widths and colours that pens of drawings are given. */
import { t } from "../../words/words";

/** ISO 128-20, paper mm. */
export const WIDTHS = [0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1, 1.4, 2] as const;
export const COLOURS = [
  ["#1b1f24", t("Ink")],
  ["#6b7378", t("Grey")],
  ["#a9afb3", t("Pale grey")],
  ["#9c3f24", t("Rust")],
  ["#2d5c66", t("Sea")],
] as const;
