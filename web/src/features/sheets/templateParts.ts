/** What the parts of a template are called, and the widths that their lines may have. */
import type { Field, Part } from "../../api/client";
import { inSentence, t } from "../../words/words";

const WIDTHS = [0, 0.13, 0.18, 0.25, 0.35, 0.5, 0.7, 1] as const;
export const KINDS: Record<Part["kind"], string> = {
  line: t("Line"),
  rectangle: t("Rectangle"),
  text: t("Text"),
  field: t("Field"),
  image: t("Picture"),
  revisions: t("Revision table"),
};

/** A choice that also has what stands there now, whatever that is. */
export const withNow = (choices: readonly (readonly [string, string])[], now: string) =>
  choices.some(([v]) => v === now) ? choices : [...choices, [now, now] as const];
export const widths = (now: number, none: string) =>
  withNow(
    WIDTHS.map((w) => [String(w), w ? t("{w} mm", { w }) : none] as const),
    String(now),
  );

/** What a part is called on the board. */
export function nameOfPart(part: Part, fields: readonly Field[]): string {
  if (part.kind === "field")
    return t("field {caption}", { caption: fields.find((f) => f.key === part.field)?.caption ?? "" });
  return part.kind === "text"
    ? t("text “{words}”", { words: part.words ?? "" })
    : inSentence(KINDS[part.kind]);
}
