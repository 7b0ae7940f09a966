/** What of a drawing the pointer snaps to: corners, centres, crossings, middles, edges; through a grid. */
import type { Point } from "./geometry";
import type { Polylines } from "./linework";
import { centresOf } from "./roundLines";

export interface Snap {
  at: [number, number];
  /** The element that it is on; blank for a bare point. */
  element: string;
  kind: "corner" | "centre" | "crossing" | "middle" | "edge" | "annotation" | "free";
}

/** A bend of a line by less is part of something round; radians. The same as the core has. */
export const SMOOTH = (12 * Math.PI) / 180;
/** Cells along the longer side of a drawing. */
const CELLS = 160;
/** Crossings are looked for among so many of the lines under the pointer. */
const MAX_CROSSING = 40;
/** A middle has to be nearer than this share of the reach: an edge is to be had beside it. */
const MIDDLE_REACH = 0.6;

interface Segment {
  line: number;
  a: Point;
  b: Point;
  /** Whether each end is a corner, and not part of something round. */
  corners: readonly [boolean, boolean];
}

export class SnapIndex {
  private readonly segments: Segment[] = [];
  private readonly centres: { line: number; at: Point }[] = [];
  private readonly cells = new Map<number, number[]>();
  private readonly cell: number;
  private readonly low: Point;
  private readonly columns: number;

  /** Of those lines of which `wanted` says so. */
  constructor(
    { points, starts }: Polylines,
    private readonly elementOf: (line: number) => string,
    wanted: (line: number) => boolean = () => true,
  ) {
    let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
    for (let line = 0; line + 1 < starts.length; line++) {
      if (!wanted(line)) continue;
      const [from, to] = [starts[line] ?? 0, starts[line + 1] ?? 0];
      const at = (k: number): Point => [points[2 * k] ?? 0, points[2 * k + 1] ?? 0];
      for (let k = from + 1; k < to; k++) {
        const [a, b] = [at(k - 1), at(k)];
        x0 = Math.min(x0, a[0], b[0]);
        y0 = Math.min(y0, a[1], b[1]);
        x1 = Math.max(x1, a[0], b[0]);
        y1 = Math.max(y1, a[1], b[1]);
        const begins = k === from + 1 || bends(at(k - 2), a, b);
        const ends = k === to - 1 || bends(a, b, at(k + 1));
        this.segments.push({ line, a, b, corners: [begins, ends] });
      }
      const own = Array.from({ length: to - from }, (_, k) => at(from + k));
      for (const centre of centresOf(own)) this.centres.push({ line, at: centre });
    }
    this.low = [x0, y0];
    this.cell = Math.max(x1 - x0, y1 - y0, 1) / CELLS;
    this.columns = CELLS + 2;
    this.segments.forEach(({ a, b }, number) => {
      const steps = Math.ceil((Math.hypot(b[0] - a[0], b[1] - a[1]) / this.cell) * 2) + 1;
      let last = -1;
      for (let k = 0; k <= steps; k++) {
        const share = k / steps;
        const key = this.key(a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share);
        if (key === last) continue;
        last = key;
        const there = this.cells.get(key);
        if (there) there.push(number);
        else this.cells.set(key, [number]);
      }
    });
  }

  private key(x: number, y: number): number {
    const [column, row] = [
      Math.floor((x - this.low[0]) / this.cell),
      Math.floor((y - this.low[1]) / this.cell),
    ];
    return row * this.columns + column;
  }

  /** What lies nearest to a point, within reach: a corner before a centre, a crossing, a middle, an edge. */
  nearest(at: Point, reach: number): Snap | null {
    const near = this.near(at, reach);
    const best = { kind: "" as Snap["kind"] | "", far: Infinity, at: at as Point, line: 0 };
    const offer = (kind: Snap["kind"], p: Point, line: number, within = reach) => {
      const far = Math.hypot(p[0] - at[0], p[1] - at[1]);
      if (far > within || (best.kind === kind && far >= best.far)) return;
      Object.assign(best, { kind, far, at: p, line });
    };
    for (const kind of ["corner", "centre", "crossing", "middle", "edge"] as const) {
      if (kind === "centre") for (const centre of this.centres) offer(kind, centre.at, centre.line);
      else if (kind === "crossing") {
        const few = near.slice(0, MAX_CROSSING);
        few.forEach((s, k) => {
          for (const other of few.slice(k + 1)) {
            // Where one line goes on from stretch to stretch it does not cross itself.
            const p = s.line === other.line ? null : crossing(s, other);
            if (p) offer(kind, p, s.line);
          }
        });
      } else
        for (const { line, a, b, corners } of near) {
          if (kind === "corner") {
            if (corners[0]) offer(kind, a, line);
            if (corners[1]) offer(kind, b, line);
          } else if (kind === "middle") {
            if (corners[0] && corners[1])
              offer(kind, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], line, reach * MIDDLE_REACH);
          } else offer(kind, footOn(at, a, b), line);
        }
      if (best.kind)
        return { kind: best.kind, at: [best.at[0], best.at[1]], element: this.elementOf(best.line) };
    }
    return null;
  }

  /** The segments that pass within reach of a point, the nearest first, with their points nearest to it. */
  segmentsAt(at: Point, reach: number): { line: number; a: Point; b: Point; foot: Point }[] {
    return this.near(at, reach).map(({ line, a, b }) => ({ line, a, b, foot: footOn(at, a, b) }));
  }

  /** The segments, by their numbers, of all cells that a square about a point touches. */
  private cellsAbout(at: Point, reach: number): Set<number> {
    const across = Math.ceil(reach / this.cell);
    // Of a drawing that is small beside the reach, it is fewer to look at all that there is.
    if ((2 * across + 1) ** 2 > this.cells.size) return new Set(this.segments.keys());
    const found = new Set<number>();
    const middle = this.key(...at);
    for (let row = -across; row <= across; row++)
      for (let column = -across; column <= across; column++)
        for (const number of this.cells.get(middle + row * this.columns + column) ?? []) found.add(number);
    return found;
  }

  /** The segments that pass within reach of a point, the nearest first. */
  private near(at: Point, reach: number): Segment[] {
    return [...this.cellsAbout(at, reach)]
      .map((number) => {
        const segment = this.segments[number] as Segment;
        const [x, y] = footOn(at, segment.a, segment.b);
        return { segment, far: Math.hypot(x - at[0], y - at[1]) };
      })
      .filter(({ far }) => far <= reach)
      .sort((p, q) => p.far - q.far)
      .map(({ segment }) => segment);
  }
}

const bends = (before: Point, at: Point, after: Point) => bend(before, at, after) > SMOOTH;

/** By how much a line turns at a point; radians. */
export function bend(before: Point, at: Point, after: Point): number {
  const turn =
    Math.atan2(after[1] - at[1], after[0] - at[0]) - Math.atan2(at[1] - before[1], at[0] - before[0]);
  return Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn)));
}

/** The point of a segment that is nearest to another. */
export function footOn(p: Point, a: Point, b: Point): Point {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const share = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / Math.max(dx * dx + dy * dy, 1e-12);
  const within = Math.min(1, Math.max(0, share));
  return [a[0] + dx * within, a[1] + dy * within];
}

function crossing({ a, b }: Segment, { a: c, b: d }: Segment): Point | null {
  const [rx, ry, sx, sy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  const across = rx * sy - ry * sx;
  if (Math.abs(across) < 1e-9) return null;
  const t = ((c[0] - a[0]) * sy - (c[1] - a[1]) * sx) / across;
  const u = ((c[0] - a[0]) * ry - (c[1] - a[1]) * rx) / across;
  return t < 0 || t > 1 || u < 0 || u > 1 ? null : [a[0] + rx * t, a[1] + ry * t];
}
