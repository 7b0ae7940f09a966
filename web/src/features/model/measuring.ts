/** Where a measure of the building begins or ends. Lengths in mm. */
import type { Solid } from "./solid";

/** A point of the building: x, y, z in mm. */
export type Place = readonly [number, number, number];

/** How near to a corner or an edge, in pixels, a click takes it. */
export const REACH = 14;

const less = (a: Place, b: Place): Place => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: Place, b: Place) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * The place that is meant by a hit on an element: a corner close by, or else the nearest place on an edge, or
 * else the hit itself. `apart` is how far a place is from the pointer on the screen, pixels.
 */
export function measuredFrom(
  { places, edges, elements }: Pick<Solid, "places" | "edges" | "elements">,
  element: number,
  hit: Place,
  apart: (place: Place) => number,
): Place | null {
  const e = elements[element];
  if (!e) return null;
  const at = (p: number): Place => [places[p * 3] ?? 0, places[p * 3 + 1] ?? 0, places[p * 3 + 2] ?? 0];
  let best = hit;
  // Of corners behind each other the one that is nearest to what was hit is meant.
  let nearest = Infinity;
  for (let p = e.points[0]; p < e.points[1]; p++) {
    const corner = at(p);
    const away = Math.hypot(...less(hit, corner));
    if (away < nearest && apart(corner) < REACH) [best, nearest] = [corner, away];
  }
  if (nearest < Infinity) return best;
  let least = REACH;
  for (let k = e.edges[0]; k < e.edges[1]; k++) {
    const [a, b] = [at(edges[k * 2] ?? 0), at(edges[k * 2 + 1] ?? 0)];
    const way = less(b, a);
    const share = Math.min(1, Math.max(0, dot(less(hit, a), way) / Math.max(dot(way, way), 1e-9)));
    const on: Place = [a[0] + way[0] * share, a[1] + way[1] * share, a[2] + way[2] * share];
    const off = apart(on);
    if (off < least) [best, least] = [on, off];
  }
  return best;
}
