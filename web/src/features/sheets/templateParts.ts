/** What the parts of a template are called, and the widths that their lines may have. */
import type { Field, Part } from "../../api/client";

const WIDTHS = [0, 0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1] as const;
export const KINDS: Record<Part["kind"], string> = {
  line: "Line",
  rectangle: "Rectangle",
  text: "Text",
  field: "Field",
  image: "Picture",
  revisions: "Revision table",
};

/** A choice that also has what stands there now, whatever that is. */
export const withNow = (choices: readonly (readonly [string, string])[], now: string) =>
  choices.some(([v]) => v === now) ? choices : [...choices, [now, now] as const];
export const widths = (now: number, none: string) =>
  withNow(
    WIDTHS.map((w) => [String(w), w ? `${w} mm` : none] as const),
    String(now),
  );

/** What a part is called on the board. */
export function nameOfPart(part: Part, fields: readonly Field[]): string {
  if (part.kind === "field") return `field ${fields.find((f) => f.key === part.field)?.caption ?? ""}`;
  return part.kind === "text" ? `text “${part.words ?? ""}”` : KINDS[part.kind].toLowerCase();
}
