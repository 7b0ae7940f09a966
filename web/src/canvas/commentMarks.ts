/** Marks of comments: where they are, how they are drawn, how one follows the pointer while it is made. */
import type { Mark, MarkKind } from "../api/client";
import type { Point } from "./geometry";

/** Arcs of a cloud are about so wide, and bulge by so much of that. */
const ARC = 6;
const BULGE = 0.3;
/** A line by hand gets a point no nearer than this to the last one; paper mm at scale 1. */
const NEAR = 0.4;
const MAX_POINTS = 2000;

/** What a mark is drawn through, the place that it is about first; paper mm. */
export function pointsOf(mark: Mark): readonly Point[] {
  switch (mark.kind) {
    case "point":
    case "text":
      return [mark.at as Point];
    case "arrow":
      return [mark.tip as Point, mark.tail as Point];
    case "line":
      return mark.run as Point[];
    case "cloud":
    case "area":
      return mark.corners as Point[];
    case "length":
      return [mark.first as Point, mark.last as Point];
  }
}

/** A mark with its points elsewhere. */
export function mappedMark(mark: Mark, by: (at: Point) => Point): Mark {
  const to = (at: readonly [number, number]) => [...by(at)] as [number, number];
  switch (mark.kind) {
    case "point":
    case "text":
      return { ...mark, at: to(mark.at) };
    case "arrow":
      return { ...mark, tip: to(mark.tip), tail: to(mark.tail) };
    case "line":
      return { ...mark, run: mark.run.map(to) };
    case "cloud":
    case "area":
      return { ...mark, corners: mark.corners.map(to) };
    case "length":
      return { ...mark, first: to(mark.first), last: to(mark.last) };
  }
}

const d = (points: readonly Point[]) => points.map(([x, y], k) => `${k ? "L" : "M"}${x} ${y}`).join("");

/** The ring of a cloud as a path: arcs about its corners, bulging outward; in the unit of its corners. */
export function cloudPath(corners: readonly Point[], arc = ARC): string {
  const area = corners.reduce((sum, [x, y], k) => {
    const [u, v] = corners[(k + 1) % corners.length] ?? [x, y];
    return sum + x * v - u * y;
  }, 0);
  const ring = area > 0 ? corners : corners.toReversed();
  const [first] = ring;
  if (!first) return "";
  let path = `M${first[0]} ${first[1]}`;
  ring.forEach(([x, y], k) => {
    const [u, v] = ring[(k + 1) % ring.length] ?? [x, y];
    const count = Math.max(1, Math.round(Math.hypot(u - x, v - y) / arc));
    for (let i = 1; i <= count; i += 1) {
      const chord = Math.hypot(u - x, v - y) / count;
      // The radius of an arc that bulges by a share of its chord.
      const radius = chord * (1 / (8 * BULGE) + BULGE / 2);
      path += `A${radius} ${radius} 0 0 1 ${x + ((u - x) * i) / count} ${y + ((v - y) * i) / count}`;
    }
  });
  return `${path}Z`;
}

/** A mark as an SVG path of points that lie as on the screen (y downward); blank for what is no line. */
export function markPath(mark: Mark, at: (point: Point) => Point, perMm: number): string {
  const points = pointsOf(mark).map(at);
  switch (mark.kind) {
    case "point":
    case "text":
      return "";
    case "cloud":
      return cloudPath(points, Math.max(8, ARC * perMm));
    case "area":
      return `${d(points)}Z`;
    case "arrow": {
      const [[x, y], [u, v]] = points as [Point, Point];
      const way = Math.atan2(v - y, u - x);
      const barb = (turn: number): Point => [x + 11 * Math.cos(way + turn), y + 11 * Math.sin(way + turn)];
      return (
        d([
          [u, v],
          [x, y],
        ]) + d([barb(0.42), [x, y], barb(-0.42)])
      );
    }
    case "length": {
      const [[x, y], [u, v]] = points as [Point, Point];
      const way = Math.atan2(v - y, u - x) + Math.PI / 2;
      const [c, s] = [6 * Math.cos(way), 6 * Math.sin(way)];
      const end = ([p, q]: Point) =>
        d([
          [p - c, q - s],
          [p + c, q + s],
        ]);
      return d(points) + end([x, y]) + end([u, v]);
    }
    case "line":
      return d(points);
  }
}

/** The mark that a press at a place begins. */
export function begun(kind: MarkKind, [x, y]: Point): Mark {
  const at = (): [number, number] => [x, y];
  switch (kind) {
    case "point":
    case "text":
      return { kind, at: at() };
    case "arrow":
      return { kind, tail: at(), tip: at() };
    case "line":
      return { kind, run: [at(), at()] };
    case "cloud":
    case "area":
      return {
        kind,
        corners: [at(), at(), at(), at()],
        ...(kind === "area" ? { filled: false } : {}),
      } as Mark;
    case "length":
      return { kind, first: at(), last: at(), length: 0 };
  }
}

/** The same once the pointer has come to another place: a box for clouds, one more point for a line. */
export function drawnTo(mark: Mark, [x, y]: Point, perMm: number): Mark {
  const at: [number, number] = [x, y];
  switch (mark.kind) {
    case "point":
    case "text":
      return { ...mark, at };
    case "arrow":
      return { ...mark, tip: at };
    case "length":
      return { ...mark, last: at };
    case "cloud":
    case "area": {
      const [[u, v] = at] = mark.corners;
      return {
        ...mark,
        corners: [
          [u, v],
          [x, v],
          [x, y],
          [u, y],
        ],
      };
    }
    case "line": {
      const [u, v] = mark.run.at(-1) ?? at;
      const far = Math.hypot(x - u, y - v) * perMm > NEAR * 4;
      return far && mark.run.length < MAX_POINTS ? { ...mark, run: [...mark.run, at] } : mark;
    }
  }
}

/** Whether a mark is large enough to be meant: a press that has not moved makes a point, and nothing else. */
export function isDrawn(mark: Mark, perMm: number): boolean {
  if (mark.kind === "point" || mark.kind === "text") return true;
  const points = pointsOf(mark);
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const wide = Math.max(...xs) - Math.min(...xs);
  const high = Math.max(...ys) - Math.min(...ys);
  return mark.kind === "cloud" || mark.kind === "area"
    ? Math.min(wide, high) * perMm > 6
    : Math.hypot(wide, high) * perMm > 6;
}

interface Placement {
  place: readonly [number, number];
  ratio: number;
  turn: number;
}

/** Where a place of a sheet lies once its drawing lies otherwise: moved, turned, or at another scale. */
export function movedPlace(before: Placement, now: Placement, [x, y]: Point): Point {
  const turn = ((now.turn - before.turn) * Math.PI) / 180;
  const by = now.ratio / before.ratio;
  const [u, v] = [(x - before.place[0]) * by, (y - before.place[1]) * by];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [now.place[0] + u * c - v * s, now.place[1] + u * s + v * c];
}
