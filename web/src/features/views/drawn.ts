/**
 * From points drawn on a view to the view that they describe. Points in u, v of what they were drawn on, mm.
 */
import type { Point } from "../../canvas/geometry";
import type { Kind, Spec } from "./kinds";

export type Shape = "rectangle" | "circle" | "polygon";

/** How many points are wanted at least, and at most. */
export function wanted(kind: Kind, shape: Shape): readonly [number, number] {
  if (kind === "section") return [2, 40];
  if (kind === "detail" && shape === "polygon") return [3, 40];
  return [2, 2];
}

const STRAIGHT = Math.tan((4 * Math.PI) / 180);

/** Where a point goes: square to what is there, so that lines are straight and jogs at right angles. */
export function squared(kind: Kind, points: readonly Point[], [u, v]: Point, free: boolean): Point {
  const [first, second] = points;
  const last = points.at(-1);
  if (!first || !last || kind === "perspective" || kind === "detail") return [u, v];
  if (!second) {
    const [du, dv] = [u - first[0], v - first[1]];
    if (free) return [u, v];
    if (Math.abs(dv) < Math.abs(du) * STRAIGHT) return [u, first[1]];
    if (Math.abs(du) < Math.abs(dv) * STRAIGHT) return [first[0], v];
    return [u, v];
  }
  const length = Math.hypot(second[0] - first[0], second[1] - first[1]);
  const along = [(second[0] - first[0]) / length, (second[1] - first[1]) / length] as const;
  const way = points.length % 2 ? along : ([-along[1], along[0]] as const);
  const by = (u - last[0]) * way[0] + (v - last[1]) * way[1];
  // Along the line it only goes on, never back.
  const far = points.length % 2 ? Math.max(by, 1) : by;
  return [last[0] + way[0] * far, last[1] + way[1] * far];
}

interface Figures {
  depth: number | null;
  eyeHeight: number;
  targetHeight: number;
  floor: number;
  angle: number;
}

/** The view that the points describe; null while there are too few, or it would end in a jog. */
export function specOf(
  kind: Kind,
  shape: Shape,
  points: readonly Point[],
  base: Spec,
  origin: readonly number[],
  figures: Figures,
): Spec | null {
  const [least] = wanted(kind, shape);
  const [a, b] = points;
  if (points.length < least || !a || !b || Math.hypot(b[0] - a[0], b[1] - a[1]) < 10) return null;
  const [ox = 0, oy = 0] = origin;
  const model = ([u, v]: Point): [number, number] => [Math.round(u + ox), Math.round(v + oy)];
  switch (kind) {
    case "section":
      return points.length % 2 ? null : { kind, line: points.map(model), depth: figures.depth };
    case "elevation": {
      // The viewer stands to the right of the way that was drawn, as for a section.
      const bearing = (Math.atan2(b[1] - a[1], -(b[0] - a[0])) * 180) / Math.PI;
      return { kind, bearing: Math.round(((bearing + 360) % 360) * 100) / 100 };
    }
    case "perspective":
      return {
        kind,
        eye: [...model(a), figures.floor + figures.eyeHeight],
        target: [...model(b), figures.floor + figures.targetHeight],
        angle: figures.angle,
      };
    case "detail": {
      const round = (p: Point): [number, number] => [Math.round(p[0]), Math.round(p[1])];
      const { line_settings, shown, ...of } = base;
      const region: Spec["region"] =
        shape === "circle"
          ? { shape, centre: round(a), radius: Math.round(Math.hypot(b[0] - a[0], b[1] - a[1])) }
          : shape === "rectangle"
            ? { shape, corner: round(a), opposite: round(b) }
            : { shape, corners: points.map(round) };
      return { kind, of, region, line_settings, shown };
    }
    default:
      return null;
  }
}
