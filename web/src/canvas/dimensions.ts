/** Where a dimension that is being drawn would lie; the server draws the one that is kept. */
import { onPaper, turned, type Geometry, type Point } from "./geometry";

export type Measures = "aligned" | "horizontal" | "vertical";

/** Along what the pointer wants to measure: beside the points it is upright, above or below them level. */
export function measuresFor(points: readonly Point[], pointer: Point): Measures {
  const [us, vs] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const beside = Math.max(Math.min(...us) - pointer[0], pointer[0] - Math.max(...us), 0);
  const above = Math.max(Math.min(...vs) - pointer[1], pointer[1] - Math.max(...vs), 0);
  const [wide, high] = [Math.max(...us) - Math.min(...us), Math.max(...vs) - Math.min(...vs)];
  if (beside === 0 && above === 0) return wide >= high ? "horizontal" : "vertical";
  // Of a level line nothing can be measured upright, and the other way round.
  if (high < 1) return "horizontal";
  if (wide < 1) return "vertical";
  return above >= beside ? "horizontal" : "vertical";
}

/** The way that is measured along, a unit vector in u and v. */
export function wayOf(measures: Measures, points: readonly Point[]): Point {
  const [first, last] = [points[0], points.at(-1)];
  if (measures === "horizontal" || !first || !last) return [1, 0];
  if (measures === "vertical") return [0, 1];
  const [du, dv] = [last[0] - first[0], last[1] - first[1]];
  const length = Math.hypot(du, dv);
  return length < 0.5 ? [1, 0] : [du / length, dv / length];
}

/** How far from the first point a dimension line through a place of the paper lies, paper mm to the left. */
export function offsetFor(g: Geometry, measures: Measures, points: readonly Point[], place: Point): number {
  const [x, y] = turned(wayOf(measures, points), g.turn);
  const [fx, fy] = onPaper(g, points[0] ?? [0, 0]);
  return Math.round(((place[1] - fy) * x - (place[0] - fx) * y) * 2) / 2;
}

interface Drafted {
  /** The ends of the dimension line and of its extension lines, on paper. */
  lines: [Point, Point][];
  /** The true lengths, mm, and where on paper their middles are. */
  lengths: { at: Point; length: number }[];
}

/** The lines of a dimension and its true lengths. */
export function drafted(g: Geometry, measures: Measures, points: readonly Point[], offset: number): Drafted {
  const way = wayOf(measures, points);
  const along = (p: Point) => p[0] * way[0] + p[1] * way[1];
  const [x, y] = turned(way, g.turn);
  const [fx, fy] = onPaper(g, points[0] ?? [0, 0]);
  const onLine = (p: Point): Point => {
    const [px, py] = onPaper(g, p);
    const far = (px - fx) * x + (py - fy) * y;
    return [fx + far * x - offset * y, fy + far * y + offset * x];
  };
  const order = points.toSorted((a, b) => along(a) - along(b));
  const [first, last] = [order[0], order.at(-1)];
  if (!first || !last) return { lines: [], lengths: [] };
  return {
    lines: [[onLine(first), onLine(last)], ...order.map((p): [Point, Point] => [onPaper(g, p), onLine(p)])],
    lengths: order.slice(1).map((p, k) => {
      const before = order[k] ?? p;
      const [[ax, ay], [bx, by]] = [onLine(before), onLine(p)];
      return { at: [(ax + bx) / 2, (ay + by) / 2], length: along(p) - along(before) };
    }),
  };
}
