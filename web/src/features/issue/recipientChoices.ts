/** What recipients can be sent, and how, in the words of the screen. */
import type { RecipientSpec } from "../../api/client";
import { choicesOf } from "../../components/choices";

export type Form = RecipientSpec["forms"][number];

export const FORMS = choicesOf<Form>({ pdf: "PDF", dxf: "DXF", svg: "SVG", png: "PNG", model: "Model" });
export const DELIVERIES = choicesOf<RecipientSpec["delivery"]>({
  folder: "Into a folder",
  mail: "By mail",
  link: "By a link",
});
export const COLOURS = choicesOf<RecipientSpec["colours"]>({
  "": "By plot settings",
  full: "In colour",
  grey: "In grey",
  black: "In black",
  chosen: "Black with chosen colours",
});
export const PAPERS = [
  ["", "Full size"],
  ["A3", "Reduced to A3"],
  ["A4", "Reduced to A4"],
  ["A2", "Reduced to A2"],
  ["A1", "Reduced to A1"],
] as const;
