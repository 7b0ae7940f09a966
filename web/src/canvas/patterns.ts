/**
 * Patterns of lines as the core lays them (drafting/styles/patterns.py): they meet at corners, and start and
 * end on a dash.
 */

/** A polyline that bends by more than this has a corner, at which dashes meet; radians. */
const CORNER = (20 * Math.PI) / 180;

type Points = readonly (readonly number[])[];

/** The parts of a polyline between its corners. A ring without corners is one part. */
export function stretches(points: Points, closed = false): Points[] {
  let ring = (closed && points[0] ? [...points, points[0]] : [...points]).filter(
    (p, k, all) => k === 0 || length(all[k - 1], p) > 1e-9,
  );
  if (ring.length < 2) return [];
  const bends = (at: number) => Math.abs(turn(way(ring, at - 1), way(ring, at))) > CORNER;
  if (closed && Math.abs(turn(way(ring, ring.length - 2), way(ring, 0))) <= CORNER) {
    // The ring is taken up at a corner, so that no dash begins in the middle of a side.
    const first = Array.from({ length: ring.length - 2 }, (_, k) => k + 1).find(bends);
    if (first !== undefined) ring = [...ring.slice(first, -1), ...ring.slice(0, first + 1)];
  }
  const parts: Points[] = [];
  let from = 0;
  for (let k = 1; k < ring.length; k++)
    if (k === ring.length - 1 || bends(k)) {
      parts.push(ring.slice(from, k + 1));
      from = k;
    }
  return parts;
}

/**
 * A pattern (dash and gap by turns) stretched or shrunk to a length; nothing, which is a whole line, for one
 * too short for a gap.
 */
export function fittedTo(pattern: readonly number[], along: number): number[] {
  const period = pattern.reduce((sum, part) => sum + part, 0);
  const first = pattern[0] ?? 0;
  const times = Math.round((along - first) / period);
  if (times < 1)
    return along < first + period / 2 ? [] : pattern.map((part) => (part * along) / (period + first));
  const by = along / (times * period + first);
  return pattern.map((part) => part * by);
}

export const lengthOf = (points: Points) =>
  points.reduce((sum, p, k) => sum + (k ? length(points[k - 1], p) : 0), 0);

const length = (a: readonly number[] = [], b: readonly number[] = []) =>
  Math.hypot((b[0] ?? 0) - (a[0] ?? 0), (b[1] ?? 0) - (a[1] ?? 0));

const way = (ring: Points, k: number) =>
  Math.atan2((ring[k + 1]?.[1] ?? 0) - (ring[k]?.[1] ?? 0), (ring[k + 1]?.[0] ?? 0) - (ring[k]?.[0] ?? 0));

const turn = (a: number, b: number) => {
  const by = b - a;
  return by - 2 * Math.PI * Math.round(by / (2 * Math.PI));
};
