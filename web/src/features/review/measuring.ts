/** Lengths that are measured on a sheet: true, through the scale of the drawing that both ends lie in. */
import type { LookedAtSheet, Mark } from "../../api/client";

type Drawings = Pick<LookedAtSheet, "drawings">;

/** A mark with the length that it measures; zero on the bare sheet, between drawings, in a perspective. */
export function measuredMark(mark: Mark, { drawings }: Drawings): Mark {
  if (mark.kind !== "length") return mark;
  const within = ([x, y]: readonly [number, number]) =>
    drawings.findLast(({ box: [left = 0, foot = 0, width = 0, height = 0] }) => {
      return x >= left && x <= left + width && y >= foot && y <= foot + height;
    });
  const drawing = within(mark.first);
  const same = drawing && drawing === within(mark.last) && drawing.ratio > 0;
  const paper = Math.hypot(mark.last[0] - mark.first[0], mark.last[1] - mark.first[1]);
  return { ...mark, length: same ? paper / drawing.ratio : 0 };
}
