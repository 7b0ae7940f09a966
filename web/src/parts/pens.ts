/** Pens of a drawing on the screen alone: a view has no scale, so its lines have the screen's widths, in pixels. */
import { colours } from "../theme/theme";

const SOLID: number[] = [];
const SOFT = "#4d565d";

/** Pens by line role; `weight` 1 is for a small picture. */
export function screenPens(weight = 1) {
  const pen = (width: number, colour: string, pattern = SOLID) => ({ width: width * weight, colour, pattern });
  return {
    hidden: pen(0.25, SOFT, [12, 6]),
    overhead: pen(0.25, SOFT, [12, 6]),
    far: pen(0.22, "#7b858c"),
    seam: pen(0.25, "#7b858c"),
    edge: pen(0.3, SOFT),
    profile: pen(0.5, colours.ink),
    cut: pen(0.8, colours.ink),
  };
}
