/** What of a drawing is under the pointer to be drawn otherwise: a line as far as it runs on, or a cut. */
import type { Point } from "./geometry";
import { pointsOf, type Linework } from "./linework";
import { lengthOf } from "./patterns";
import { DIVIDED, divided, type Redrawn } from "./redrawn";
import { SMOOTH, bend, footOn, type SnapIndex } from "./snapPoints";

/** A line, or what is cut where there is no line. */
export interface Picked {
  element: string;
  layer: string;
  role: string;
  ifcClass: string;
  /** The material of its element. */
  madeOf: string;
  /** The material of what is cut; null of a line. */
  material: string | null;
  /** What is chosen: its points, real mm; of what is cut, none. */
  points: Point[];
  /** Of what is round, its centre and radius; null of what is straight. */
  round: { centre: Point; radius: number } | null;
}

/** In what lines are alike; what is blank does not matter. */
export interface Alike {
  element: string;
  ifc_class: string;
  made_of: string;
  layer: string;
  role?: string;
  /** Their length is under this, real mm. */
  shorter?: number;
}

/** The numbers of the lines that are alike in all that is said; as the core chooses them. */
export function linesAlike(
  drawing: Linework,
  { element, ifc_class, made_of, layer, role, shorter }: Alike,
): number[] {
  const found: number[] = [];
  for (let line = 0; line + 1 < drawing.lines.starts.length; line++)
    if (
      (!element || drawing.elementOf(line) === element) &&
      (!ifc_class || drawing.classOf(line) === ifc_class) &&
      (!made_of || drawing.madeOf(line) === made_of) &&
      (!layer || drawing.layerOf(line) === layer) &&
      (!role || drawing.roleOf(line) === role) &&
      (!shorter || lengthOf(pointsOf(drawing.lines, line)) < shorter)
    )
      found.push(line);
  return found;
}

/** A bend by less is none; what lies between it and a corner is round. Radians. */
const STRAIGHT = (0.5 * Math.PI) / 180;
/** A place along a line counts as hidden where a hidden piece passes so near; mm. */
const NEAR = 0.5;

export function lineAt(
  drawing: Linework,
  index: SnapIndex,
  at: Point,
  reach: number,
  redrawn: readonly Redrawn[],
): Picked | null {
  const { by, pieces } = redrawn.length ? divided(drawing.lines, redrawn) : { by: null, pieces: [] };
  const isHidden = (line: number, foot: Point) => {
    const what = by?.[line] ?? -1;
    if (what !== DIVIDED) return what >= 0 && Boolean(redrawn[what]?.hidden);
    const here = pieces.find((piece) => piece.line === line && passes(piece.points, foot));
    return here !== undefined && here.by >= 0 && Boolean(redrawn[here.by]?.hidden);
  };
  const found = index.segmentsAt(at, reach).find(({ line, foot }) => !isHidden(line, foot));
  if (!found) return null;
  const { line, a, b } = found;
  return {
    element: drawing.elementOf(line),
    layer: drawing.layerOf(line),
    role: drawing.roleOf(line),
    ifcClass: drawing.classOf(line),
    madeOf: drawing.madeOf(line),
    material: null,
    ...runOf(pointsOf(drawing.lines, line), a, b),
  };
}

/** What is cut at a point. */
export function areaAt({ regions }: Pick<Linework, "regions">, [u, v]: Point): Picked | null {
  const context = new OffscreenCanvas(1, 1).getContext("2d");
  const found = regions.findLast(
    ({ path, box }) =>
      u >= box[0] &&
      v >= box[1] &&
      u <= box[2] &&
      v <= box[3] &&
      context?.isPointInPath(path, u, v, "evenodd"),
  );
  return found
    ? {
        element: found.element,
        layer: "",
        role: "cut",
        ifcClass: "",
        madeOf: "",
        material: found.material,
        points: [],
        round: null,
      }
    : null;
}

/** How far a line runs on about one of its segments: straight, or round. */
export function runOf(points: readonly Point[], a: Point, b: Point): Pick<Picked, "points" | "round"> {
  const k = points.findIndex((p, n) => same(p, a) && same(points[n + 1] ?? p, b));
  if (k < 0) return { points: [a, b], round: null };
  const bendAt = (n: number): number => {
    const [before, here, after] = [points[n - 1], points[n], points[n + 1]];
    return before && here && after ? bend(before, here, after) : Infinity;
  };
  const isRound = [bendAt(k), bendAt(k + 1)].some((turn) => turn > STRAIGHT && turn < SMOOTH);
  const goesOn = (turn: number) => turn < (isRound ? SMOOTH : STRAIGHT);
  let [first, last] = [k, k + 1];
  while (first > 0 && goesOn(bendAt(first))) first--;
  while (last < points.length - 1 && goesOn(bendAt(last))) last++;
  const run = points.slice(first, last + 1);
  return { points: run, round: isRound ? circleThrough(run) : null };
}

/** The circle through three points of a run; null where these lie on a line. */
function circleThrough(run: readonly Point[]): Picked["round"] {
  const third = Math.floor((run.length - 1) / 3);
  const [a, b, c] = [run[0], run[third], run[2 * third]];
  if (!a || !b || !c) return null;
  const [bx, by, cx, cy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  const across = 2 * (bx * cy - by * cx);
  if (Math.abs(across) < 1e-6) return null;
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const [x, y] = [(cy * bb - by * cc) / across, (bx * cc - cx * bb) / across];
  return { centre: [a[0] + x, a[1] + y], radius: Math.hypot(x, y) };
}

const same = (p: Point, q: Point) => p[0] === q[0] && p[1] === q[1];

const passes = (points: readonly Point[], at: Point) =>
  points.some((b, k) => {
    const a = points[k - 1];
    const foot = a && footOn(at, a, b);
    return foot !== undefined && Math.hypot(at[0] - foot[0], at[1] - foot[1]) < NEAR;
  });
