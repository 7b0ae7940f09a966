/**
 * Where the parts of a template lie on a sheet: they keep to sides of its frame, from which their figures are
 * measured.
 */
import type { DisplayList, Part } from "../api/client";

/** The two ends of a part on the paper: x, y, x, y; mm. */
export type Ends = readonly [number, number, number, number];
type Paper = Pick<DisplayList, "frame" | "shrink">;

/** From where the figures of a part are measured, for each of its ends. */
function from({ across = "right", up = "bottom" }: Pick<Part, "across" | "up">, { frame }: Paper): Ends {
  const [left, right, low, high] = [frame.x, frame.x + frame.width, frame.y, frame.y + frame.height];
  const [x0, x1] = {
    left: [left, left],
    middle: [(left + right) / 2, (left + right) / 2],
    right: [right, right],
    both: [left, right],
  }[across] as [number, number];
  const [y0, y1] = {
    bottom: [low, low],
    middle: [(low + high) / 2, (low + high) / 2],
    top: [high, high],
    both: [low, high],
  }[up] as [number, number];
  return [x0, y0, x1, y1];
}

export function endsOf(part: Part, paper: Paper): Ends {
  const [x0, y0, x1, y1] = from(part, paper);
  return [x0 + part.x0 * paper.shrink, y0 + part.y0, x1 + part.x1 * paper.shrink, y1 + part.y1];
}

/** A part as its figures have to be for its ends to lie where they are wanted. */
export function laid(part: Part, [x0, y0, x1, y1]: Ends, paper: Paper): Part {
  const [fx0, fy0, fx1, fy1] = from(part, paper);
  const figure = (value: number) => Math.round(value * 100) / 100;
  return {
    ...part,
    x0: figure((x0 - fx0) / paper.shrink),
    x1: figure((x1 - fx1) / paper.shrink),
    y0: figure(y0 - fy0),
    y1: figure(y1 - fy1),
  };
}

/** What a part of a template is selected by, by its number. */
export const partName = (number: number) => `part ${number}`;
export const partNumber = (name: string) => (name.startsWith("part ") ? Number(name.slice(5)) : -1);
