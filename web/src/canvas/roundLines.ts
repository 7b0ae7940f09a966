/** The centres of circles and arcs, which reach a drawing as short stretches; as the core finds them. */
import type { Point } from "./geometry";

/** An arc has as many stretches at least, and bends by no more from one to the next; radians. */
const MIN_STRETCHES = 4;
const MAX_BEND = (50 * Math.PI) / 180;
/** Its corners lie as near to their circle, mm, or as a share of its radius. */
const NEAR = 0.5;
const NEAR_SHARE = 0.002;
/** So many of its corners are looked at, at least, however many there are. */
const CHECKED = 8;
/** Three points whose circle is larger lie on a straight line, mm. */
const STRAIGHT = 1e7;

const distance = (a: Point, b: Point) => Math.hypot(b[0] - a[0], b[1] - a[1]);

/** The centre of each arc that a polyline has, in its order. */
export function centresOf(line: readonly Point[]): Point[] {
  const found: Point[] = [];
  const at = (k: number) => line[k] as Point;
  let start = 0;
  while (start + MIN_STRETCHES < line.length) {
    let centre: Point | null = null;
    let end = start + 2;
    const way = bend(at(start), at(start + 1), at(end));
    for (; end < line.length; end++) {
      const now = bend(at(end - 2), at(end - 1), at(end));
      if (now * way <= 0 || Math.abs(now) > MAX_BEND) break;
      if (end - start < MIN_STRETCHES) continue;
      const next = centreOf(line.slice(start + 1, end));
      if (!next) break;
      centre = next;
    }
    if (centre) found.push(centre);
    start = centre ? end - 1 : start + 1;
  }
  return found;
}

/** The centre of points that lie on an arc. */
function centreOf(points: readonly Point[]): Point | null {
  const at = (k: number) => points[k] as Point;
  const last = points.length - 1;
  let share = Math.floor(last / 2);
  // Of what closes nearly, a third: its ends tell little.
  if (distance(at(0), at(last)) < distance(at(0), at(share))) share = Math.floor(last / 3);
  const circle = circleThrough(at(0), at(share), at(2 * share));
  if (!circle) return null;
  const near = Math.max(NEAR, circle.radius * NEAR_SHARE);
  const step = Math.max(Math.floor(last / CHECKED), 1);
  const isOn = (p: Point) => Math.abs(distance(circle.centre, p) - circle.radius) <= near;
  return points.every((p, k) => (k % step && k !== last ? true : isOn(p))) ? circle.centre : null;
}

/** The circle through three points; null where they lie on a straight line. */
export function circleThrough(a: Point, b: Point, c: Point): { centre: Point; radius: number } | null {
  const [bx, by, cx, cy] = [b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]];
  const twice = 2 * (bx * cy - by * cx);
  if (twice === 0) return null;
  const [bb, cc] = [bx * bx + by * by, cx * cx + cy * cy];
  const [x, y] = [(cy * bb - by * cc) / twice, (bx * cc - cx * bb) / twice];
  const radius = Math.hypot(x, y);
  return radius < STRAIGHT ? { centre: [a[0] + x, a[1] + y], radius } : null;
}

function bend(a: Point, b: Point, c: Point): number {
  const turn = Math.atan2(c[1] - b[1], c[0] - b[0]) - Math.atan2(b[1] - a[1], b[0] - a[0]);
  return Math.atan2(Math.sin(turn), Math.cos(turn));
}
