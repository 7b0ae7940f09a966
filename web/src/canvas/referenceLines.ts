/** Grid lines and storey levels as what annotation snaps to, worked out as the core does. */
import type { ModelVersion, Viewport } from "../api/client";
import type { Point } from "./geometry";
import type { Snap } from "./snapPoints";

/** How far a line reaches that has no ends in a drawing, mm. */
const FAR = 1e6;
const END_ON = 0.001;
type Facts = Pick<ModelVersion["facts"], "grid" | "storeys">;
export interface ReferenceLine {
  id: string;
  ends: readonly [Point, Point];
}

/** The grid lines and levels that are seen along some axes, in u and v. */
export function referenceLines(
  axes: NonNullable<Viewport["axes"]>,
  { grid = [], storeys = [] }: Partial<Facts>,
): ReferenceLine[] {
  const { right, up, origin } = axes as Record<"right" | "up" | "origin", number[]>;
  const [rx = 0, ry = 0, rz = 0] = right;
  const [ux = 0, uy = 0, uz = 0] = up;
  const [ox = 0, oy = 0, oz = 0] = origin;
  const seen = (p: readonly number[]): Point => {
    const [dx, dy] = [(p[0] ?? 0) - ox, (p[1] ?? 0) - oy];
    return [dx * rx + dy * ry, dx * ux + dy * uy];
  };
  const ends = ({ ends: [a = [], b = []] }: (typeof grid)[number]) => [a, b] as const;
  if (Math.abs(rz) < 1e-6 && Math.abs(uz) < 1e-6)
    return grid.map((line) => {
      const [a, b] = ends(line);
      return { id: `grid:${line.name}`, ends: [seen(a), seen(b)] };
    });
  if (uz < 1 - 1e-6) return [];
  const across = grid.flatMap((line): ReferenceLine[] => {
    const [a, b] = ends(line);
    const [dx, dy] = [(b[0] ?? 0) - (a[0] ?? 0), (b[1] ?? 0) - (a[1] ?? 0)];
    const length = Math.hypot(dx, dy);
    if (!length || Math.abs((dx * rx + dy * ry) / length) >= END_ON) return [];
    const [u] = seen(a);
    return [{ id: `grid:${line.name}`, ends: [[u, -FAR], [u, FAR]] }]; // prettier-ignore
  });
  const levels = storeys.map(({ name, elevation }): ReferenceLine => {
    const v = elevation - oz;
    return { id: `level:${name}`, ends: [[-FAR, v], [FAR, v]] }; // prettier-ignore
  });
  return [...across, ...levels];
}

/** What of some lines lies nearest to a point, within reach: where two cross before a place on one. */
export function snapToLines(lines: readonly ReferenceLine[], at: Point, reach: number): Snap | null {
  const near = lines
    .map(({ id, ends: [a, b] }) => {
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const share = ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / Math.max(dx * dx + dy * dy, 1e-12);
      const within = Math.min(1, Math.max(0, share));
      const foot: Point = [a[0] + dx * within, a[1] + dy * within];
      return { id, way: [dx, dy] as Point, foot, far: Math.hypot(foot[0] - at[0], foot[1] - at[1]) };
    })
    .filter(({ far }) => far <= reach)
    .sort((p, q) => p.far - q.far);
  const [one, other] = near;
  if (!one) return null;
  if (other) {
    const bottom = one.way[0] * other.way[1] - one.way[1] * other.way[0];
    if (Math.abs(bottom) > 1e-9) {
      const [ex, ey] = [other.foot[0] - one.foot[0], other.foot[1] - one.foot[1]];
      const t = (ex * other.way[1] - ey * other.way[0]) / bottom;
      const place: [number, number] = [one.foot[0] + t * one.way[0], one.foot[1] + t * one.way[1]];
      if (Math.hypot(place[0] - at[0], place[1] - at[1]) <= reach)
        return { at: place, element: one.id, kind: "crossing" };
    }
  }
  return { at: [one.foot[0], one.foot[1]], element: one.id, kind: "edge" };
}
