/** Where things lie: sheet millimetres (from the lower left, y up), screen pixels (from the upper left), and views. */
import type { DrawingItem, Rung, Viewport } from "../api/client";

/** How the sheet lies on the board: pixels for a millimetre, and where the lower left corner of the paper is. */
export interface Look {
  scale: number;
  x: number;
  y: number;
}

/** Where a viewport is and what it shows: its frame in paper mm, its middle in real mm, and paper over real. */
export type Geometry = Pick<Viewport, "x" | "y" | "width" | "height" | "centre_u" | "centre_v" | "ratio">;
export type Point = readonly [number, number];
export type Extents = readonly [number, number, number, number];

export const geometryOf = ({ x, y, width, height, centre_u, centre_v, ratio }: Viewport): Geometry => ({
  x,
  y,
  width,
  height,
  centre_u,
  centre_v,
  ratio,
});

export const toScreen = (look: Look, x: number, y: number): Point => [look.x + x * look.scale, look.y - y * look.scale];
export const toPaper = (look: Look, px: number, py: number): Point => [
  (px - look.x) / look.scale,
  (look.y - py) / look.scale,
];

/** The six figures that place a drawing, as the core has them: paper = place + ratio * (u, v), clipped to the frame. */
export function placementOf(g: Geometry): Pick<DrawingItem, "clip" | "ratio" | "place"> {
  const { x, y, width, height, ratio } = g;
  return {
    clip: [[x, y], [x + width, y], [x + width, y + height], [x, y + height]],
    ratio,
    place: [x + width / 2 - g.centre_u * ratio, y + height / 2 - g.centre_v * ratio],
  };
}

/** Crop: the frame's sides move, and what is seen stays where it is on paper. Scale is never touched. */
export function cropped(g: Geometry, sides: { west?: number; south?: number; east?: number; north?: number }): Geometry {
  const least = 5;
  let [x0, y0, x1, y1] = [g.x, g.y, g.x + g.width, g.y + g.height];
  if (sides.west !== undefined) x0 = Math.min(x0 + sides.west, x1 - least);
  if (sides.east !== undefined) x1 = Math.max(x1 + sides.east, x0 + least);
  if (sides.south !== undefined) y0 = Math.min(y0 + sides.south, y1 - least);
  if (sides.north !== undefined) y1 = Math.max(y1 + sides.north, y0 + least);
  const shiftX = (x0 + x1) / 2 - (g.x + g.width / 2);
  const shiftY = (y0 + y1) / 2 - (g.y + g.height / 2);
  return {
    ...g,
    x: x0,
    y: y0,
    width: x1 - x0,
    height: y1 - y0,
    centre_u: g.centre_u + shiftX / g.ratio,
    centre_v: g.centre_v + shiftY / g.ratio,
  };
}

export const moved = (g: Geometry, dx: number, dy: number): Geometry => ({ ...g, x: g.x + dx, y: g.y + dy });

/** Move what is seen by a distance on paper; the frame stays. */
export const shifted = (g: Geometry, dx: number, dy: number): Geometry => ({
  ...g,
  centre_u: g.centre_u - dx / g.ratio,
  centre_v: g.centre_v - dy / g.ratio,
});

/** The rung that a view will be placed at: a hint for the hand; the core decides. */
export function rungFor(extents: Extents, freeArea: readonly number[], ladder: readonly Rung[]): Rung | undefined {
  const [u0, v0, u1, v1] = extents;
  const [, , width = 0, height = 0] = freeArea;
  return ladder.find((r) => (u1 - u0) * r.ratio <= width - 4 && (v1 - v0) * r.ratio <= height - 4) ?? ladder.at(-1);
}

/** The look that shows all of a paper within a space, with room for the rulers. */
export function fitted(paper: { width: number; height: number }, space: { width: number; height: number }): Look {
  const room = 44;
  const scale = Math.max(
    0.05,
    Math.min((space.width - 2 * room) / paper.width, (space.height - 2 * room) / paper.height),
  );
  return {
    scale,
    x: (space.width - paper.width * scale) / 2 + 6,
    y: (space.height + paper.height * scale) / 2 + 6,
  };
}

/** Zoom the board about a point of the screen. The drawing's scale is another matter. */
export function zoomed(look: Look, factor: number, px: number, py: number): Look {
  const scale = Math.min(60, Math.max(0.1, look.scale * factor));
  const by = scale / look.scale;
  return { scale, x: px + (look.x - px) * by, y: py + (look.y - py) * by };
}
