/**
 * Where things lie: sheet millimetres (from the lower left, y up), screen pixels (from the upper left), and
 * views.
 */
import type { DrawingItem, Viewport } from "../api/client";

/** A way on paper: across, or upward; and what a box has along it. */
export type Way = 0 | 1;
export const START = ["x", "y"] as const;
export const SIZE = ["width", "height"] as const;

/**
 * How the sheet lies on the board: pixels for a millimetre, and where the lower left corner of the paper is.
 */
export interface Camera {
  scale: number;
  x: number;
  y: number;
}

/**
 * Where a viewport is and what it shows: its box in paper mm, its middle in real mm, its shape, and paper
 * over real.
 */
export type Geometry = Pick<
  Viewport,
  "x" | "y" | "width" | "height" | "centre_u" | "centre_v" | "ratio" | "turn" | "shape" | "corners"
>;
export type Point = readonly [number, number];
export type Extents = readonly [number, number, number, number];
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export const geometryOf = (v: Viewport): Geometry => ({
  x: v.x,
  y: v.y,
  width: v.width,
  height: v.height,
  centre_u: v.centre_u,
  centre_v: v.centre_v,
  ratio: v.ratio,
  turn: v.turn,
  shape: v.shape,
  corners: v.corners,
});

export const toScreen = (camera: Camera, x: number, y: number): Point => [
  camera.x + x * camera.scale,
  camera.y - y * camera.scale,
];
export const toPaper = (camera: Camera, px: number, py: number): Point => [
  (px - camera.x) / camera.scale,
  (camera.y - py) / camera.scale,
];

/** Sides of the polygon that a circle is drawn as; the same as the core has. */
const CIRCLE_SIDES = 256;
/** No viewport is made narrower than this by hand; paper mm. */
const MIN_SIZE = 5;

/** The corners of what is seen, on paper. */
export function outlineOf(g: Geometry): Point[] {
  if (g.shape === "polygon") return g.corners.map(([x = 0, y = 0]) => [g.x + x, g.y + y]);
  if (g.shape === "circle") {
    const radius = g.width / 2;
    return Array.from({ length: CIRCLE_SIDES }, (_, k) => {
      const angle = (2 * Math.PI * k) / CIRCLE_SIDES;
      return [g.x + radius * (1 + Math.cos(angle)), g.y + radius * (1 + Math.sin(angle))];
    });
  }
  return [
    [g.x, g.y],
    [g.x + g.width, g.y],
    [g.x + g.width, g.y + g.height],
    [g.x, g.y + g.height],
  ];
}

/** A vector turned by degrees anticlockwise. */
export function turned([x, y]: Point, degrees: number): Point {
  if (!degrees) return [x, y];
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [x * cos - y * sin, x * sin + y * cos];
}

/**
 * The figures that place a drawing, as the core has them: paper = place + ratio * (u, v) turned, clipped to
 * the outline.
 */
export function placementOf(g: Geometry): Pick<DrawingItem, "clip" | "ratio" | "place" | "turn"> {
  const [du, dv] = turned([g.centre_u * g.ratio, g.centre_v * g.ratio], g.turn);
  return {
    clip: outlineOf(g).map(([x, y]) => [x, y]),
    ratio: g.ratio,
    place: [g.x + g.width / 2 - du, g.y + g.height / 2 - dv],
    turn: g.turn,
  };
}

/** Where a point of the view, real mm, lies on paper. */
export function onPaper(g: Geometry, [u, v]: Point): Point {
  const [dx, dy] = turned([(u - g.centre_u) * g.ratio, (v - g.centre_v) * g.ratio], g.turn);
  return [g.x + g.width / 2 + dx, g.y + g.height / 2 + dy];
}

/** What of the view, real mm, is seen at a point of the paper. */
export function inView(g: Geometry, [x, y]: Point): Point {
  const [u, v] = turned([x - g.x - g.width / 2, y - g.y - g.height / 2], -g.turn);
  return [g.centre_u + u / g.ratio, g.centre_v + v / g.ratio];
}

/** Whether a polygon holds a point. */
export function holds(outline: readonly Point[], [x, y]: Point): boolean {
  let within = false;
  outline.forEach(([ax, ay], k) => {
    const [bx, by] = outline[(k + 1) % outline.length] ?? [ax, ay];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within;
  });
  return within;
}

/** The same drawing at the same place on paper, seen through another box. */
function framed(g: Geometry, box: Box): Geometry {
  const by: Point = [
    box.x + box.width / 2 - (g.x + g.width / 2),
    box.y + box.height / 2 - (g.y + g.height / 2),
  ];
  const [du, dv] = turned([by[0] / g.ratio, by[1] / g.ratio], -g.turn);
  return { ...g, ...box, centre_u: g.centre_u + du, centre_v: g.centre_v + dv };
}

/** By how much each side of a box is moved, paper mm; a side that is not named stays. */
export interface Sides {
  west?: number;
  south?: number;
  east?: number;
  north?: number;
}

/**
 * Crop: sides move, and what is seen stays where it is on paper. Scale is never touched. A circle stays
 * round.
 */
export function cropped(g: Geometry, sides: Sides): Geometry {
  let [x0, y0, x1, y1] = [g.x, g.y, g.x + g.width, g.y + g.height];
  if (g.shape === "circle") {
    const grown = (sides.east ?? 0) - (sides.west ?? 0) || (sides.north ?? 0) - (sides.south ?? 0);
    const size = Math.max(MIN_SIZE, g.width + grown);
    // The side opposite to the one being dragged stays; across it, the middle does.
    const left = sides.west !== undefined ? x1 - size : sides.east !== undefined ? x0 : (x0 + x1 - size) / 2;
    const low = sides.south !== undefined ? y1 - size : sides.north !== undefined ? y0 : (y0 + y1 - size) / 2;
    return framed(g, { x: left, y: low, width: size, height: size });
  }
  if (sides.west !== undefined) x0 = Math.min(x0 + sides.west, x1 - MIN_SIZE);
  if (sides.east !== undefined) x1 = Math.max(x1 + sides.east, x0 + MIN_SIZE);
  if (sides.south !== undefined) y0 = Math.min(y0 + sides.south, y1 - MIN_SIZE);
  if (sides.north !== undefined) y1 = Math.max(y1 + sides.north, y0 + MIN_SIZE);
  return framed(g, { x: x0, y: y0, width: x1 - x0, height: y1 - y0 });
}

/** A viewport with another outline, given on paper; what is seen stays where it is. */
export function outlined(g: Geometry, points: readonly Point[]): Geometry {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const box = { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
  return { ...framed(g, box), shape: "polygon", corners: points.map((p) => [p[0] - x, p[1] - y]) };
}

/** A viewport of another shape about the same middle. */
export function shaped(g: Geometry, shape: Geometry["shape"]): Geometry {
  if (shape === "circle") {
    const size = Math.min(g.width, g.height);
    const box = { x: g.x + (g.width - size) / 2, y: g.y + (g.height - size) / 2, width: size, height: size };
    return { ...framed(g, box), shape, corners: [] };
  }
  if (shape === "rectangle") return { ...g, shape, corners: [] };
  return outlined(g, outlineOf({ ...g, shape: "rectangle" }));
}

/** Some corners of an outline moved by a distance. */
export const reshaped = (g: Geometry, corners: readonly number[], dx: number, dy: number): Geometry =>
  outlined(
    g,
    outlineOf(g).map((p, k) => (corners.includes(k) ? [p[0] + dx, p[1] + dy] : p)),
  );

/** Whether an outline crosses itself: then the server would refuse it. */
export function crosses(points: readonly Point[]): boolean {
  const side = (a: Point, b: Point, c: Point) =>
    Math.sign((b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]));
  const at = (k: number) => points[k % points.length] as Point;
  for (let i = 0; i < points.length; i++)
    for (let j = i + 2; j < points.length; j++) {
      if (i === 0 && j === points.length - 1) continue;
      const [a, b, c, d] = [at(i), at(i + 1), at(j), at(j + 1)];
      if (side(a, b, c) !== side(a, b, d) && side(c, d, a) !== side(c, d, b)) return true;
    }
  return false;
}

export const moved = (g: Geometry, dx: number, dy: number): Geometry => ({ ...g, x: g.x + dx, y: g.y + dy });

/** Move what is seen by a distance on paper; the frame stays. */
export function shifted(g: Geometry, dx: number, dy: number): Geometry {
  const [du, dv] = turned([dx / g.ratio, dy / g.ratio], -g.turn);
  return { ...g, centre_u: g.centre_u - du, centre_v: g.centre_v - dv };
}

/** Room round a drawing that a crop is fitted to; paper mm. */
const MARGIN = 2;

/**
 * The crop fitted to the drawing: all of it is seen, and nothing else. Turned drawings keep to the box about
 * them.
 */
export function fittedTo(g: Geometry, [u0, v0, u1, v1]: Extents): Geometry {
  const [x, y] = [g.x + g.width / 2, g.y + g.height / 2];
  const ends = (
    [
      [u0, v0],
      [u1, v0],
      [u1, v1],
      [u0, v1],
    ] as const
  ).map(([u, v]) => turned([(u - g.centre_u) * g.ratio, (v - g.centre_v) * g.ratio], g.turn));
  const [xs, ys] = [ends.map((p) => p[0]), ends.map((p) => p[1])];
  const box = {
    x: x + Math.min(...xs) - MARGIN,
    y: y + Math.min(...ys) - MARGIN,
    width: Math.max(...xs) - Math.min(...xs) + 2 * MARGIN,
    height: Math.max(...ys) - Math.min(...ys) + 2 * MARGIN,
  };
  return { ...framed({ ...g, shape: "rectangle", corners: [] }, box) };
}

/** What has no scale fills its frame: paper over real, and the middle. */
export function filling(g: Geometry, [u0, v0, u1, v1]: Extents): Geometry {
  const ratio = Math.min(
    (g.width - 2 * MARGIN) / Math.max(u1 - u0, 1),
    (g.height - 2 * MARGIN) / Math.max(v1 - v0, 1),
  );
  return { ...g, ratio, centre_u: (u0 + u1) / 2, centre_v: (v0 + v1) / 2, turn: 0 };
}

/**
 * A viewport turned and shifted so that two of its points lie where two places of the paper are: the first on
 * the first, the second on the way to the other. Its scale stays true.
 */
export function linedUp(
  g: Geometry,
  points: readonly [Point, Point],
  places: readonly [Point, Point],
): Geometry {
  const angle = ([a, b]: readonly [Point, Point]) => (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
  const turn = (((angle(places) - angle(points)) % 360) + 360) % 360;
  const [px, py] = places[0];
  const [du, dv] = turned([g.x + g.width / 2 - px, g.y + g.height / 2 - py], -turn);
  return {
    ...g,
    turn: Math.round(turn * 1e6) / 1e6,
    centre_u: points[0][0] + du / g.ratio,
    centre_v: points[0][1] + dv / g.ratio,
  };
}

export const boxAround = (boxes: readonly Box[]): Box => {
  const x = Math.min(...boxes.map((b) => b.x));
  const y = Math.min(...boxes.map((b) => b.y));
  return {
    x,
    y,
    width: Math.max(...boxes.map((b) => b.x + b.width)) - x,
    height: Math.max(...boxes.map((b) => b.y + b.height)) - y,
  };
};

export const meets = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** What is left free about a sheet that fills the board, pixels. */
const ROOM = 44;

/** The camera that shows all of a box of the sheet within a space, with room for the rulers. */
export function fitted(box: Box, space: { width: number; height: number }): Camera {
  const scale = Math.min(
    60,
    Math.max(0.05, Math.min((space.width - 2 * ROOM) / box.width, (space.height - 2 * ROOM) / box.height)),
  );
  return {
    scale,
    x: (space.width - box.width * scale) / 2 + 6 - box.x * scale,
    y: (space.height + box.height * scale) / 2 + 6 + box.y * scale,
  };
}

/** The same where something lies over the left of the space, and not over the box; smaller if it must be. */
export function fittedBeside(box: Box, space: { width: number; height: number }, left: number): Camera {
  const camera = fitted(box, space);
  const from = camera.x + box.x * camera.scale;
  if (from >= left) return camera;
  if (left + box.width * camera.scale <= space.width - ROOM / 2)
    return { ...camera, x: camera.x + left - from };
  const beside = fitted(box, { ...space, width: space.width - left + ROOM });
  return { ...beside, x: left - box.x * beside.scale };
}

/** Zoom the board about a point of the screen. The drawing's scale is another matter. */
export function zoomed(camera: Camera, factor: number, px: number, py: number): Camera {
  const scale = Math.min(60, Math.max(0.1, camera.scale * factor));
  const by = scale / camera.scale;
  return { scale, x: px + (camera.x - px) * by, y: py + (camera.y - py) * by };
}

/**
 * The largest scale of a ladder at which a drawing fits a room; the smallest where none does. Real and paper
 * mm.
 */
export function rungFor<Rung extends { ratio: number }>(
  [u0, v0, u1, v1]: Extents,
  room: { width: number; height: number },
  ladder: readonly Rung[],
): Rung | undefined {
  const fits = (r: Rung) =>
    (u1 - u0) * r.ratio <= room.width - 2 * MARGIN && (v1 - v0) * r.ratio <= room.height - 2 * MARGIN;
  return ladder.find(fits) ?? ladder.at(-1);
}
