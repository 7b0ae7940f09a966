/** Where what is dragged snaps to: aligned with other drawings of the building, or with edges. */
import type { Viewport } from "../api/client";
import {
  boxAround,
  placementOf,
  SIZE,
  START,
  type Box,
  type Geometry,
  type Point,
  type Way,
} from "./geometry";

export interface Placed {
  id: string;
  name: string;
  geometry: Geometry;
  /** The axes of its drawing in the model; null for one that has no scale or is not known yet. */
  axes: Viewport["axes"];
}

export interface Alignment {
  from: Point;
  to: Point;
  label: string;
}

interface Candidate {
  by: number;
  label: string;
  /** What it is in line with. */
  with: Box;
  /** Where on paper the line lies that says so. */
  at: number;
}

/** How near something has to come, in pixels: to a drawing of the same building sooner than to an edge. */
const NEAR_AXIS = 9;
const NEAR_EDGE = 6;
/** Cosines and ratios that differ by less are the same. */
const SAME = 1e-6;

const WAYS = ["right", "up"] as const;

/**
 * Where the model's origin would lie on paper along the paper's x (right) or y (up), by the drawing's own
 * axis.
 */
function zeroOf({ geometry, axes }: Placed, way: Way): number {
  const { place } = placementOf(geometry);
  const axis = axes?.[WAYS[way]] ?? [];
  const along = axis.reduce((sum, a, k) => sum + a * (axes?.origin[k] ?? 0), 0);
  return (place[way] ?? 0) - geometry.ratio * along;
}

/** Whether two drawings measure along the same axis of the building, one way, at one scale. */
export function shares(a: Placed, b: Placed, way: Way): boolean {
  if (!a.axes || !b.axes || a.geometry.turn || b.geometry.turn) return false;
  if (Math.abs(a.geometry.ratio / b.geometry.ratio - 1) > SAME) return false;
  const [p, q] = [a.axes[WAYS[way]], b.axes[WAYS[way]]];
  return p.reduce((sum, x, k) => sum + x * (q[k] ?? 0), 0) > 1 - SAME;
}

/** By how much a has to be moved to align with b on an axis that they share. */
export const misalignment = (a: Placed, b: Placed, way: Way) => zeroOf(b, way) - zeroOf(a, way);

const SHARES = [0, 0.5, 1] as const;

interface Field {
  others: readonly Placed[];
  /** The frame of the sheet, and the part of it that is free for drawings. */
  frames: readonly Box[];
  guides: { x?: number[]; y?: number[] };
}

/** The shift nearest to (dx, dy) that aligns what is moved, and the lines that show with what. */
export function snapped(
  moving: readonly Placed[],
  field: Field,
  dx: number,
  dy: number,
  pixels: number,
): { by: Point; alignments: Alignment[] } {
  const box = boxAround(moving.map((m) => m.geometry));
  const found = ([0, 1] as const).map((way) => {
    const wanted = way ? dy : dx;
    const axis = nearest(axisCandidates(moving, field.others, way), wanted, NEAR_AXIS / pixels);
    return axis ?? nearest(edgeCandidates(box, field, way), wanted, NEAR_EDGE / pixels);
  });
  const by: Point = [found[0]?.by ?? dx, found[1]?.by ?? dy];
  const now = { ...box, x: box.x + by[0], y: box.y + by[1] };
  const alignments = found.flatMap((c, way) => {
    if (!c) return [];
    const both = boxAround([now, c.with]);
    const [from, to]: [Point, Point] = way
      ? [
          [both.x, c.at],
          [both.x + both.width, c.at],
        ]
      : [
          [c.at, both.y],
          [c.at, both.y + both.height],
        ];
    return [{ from, to, label: c.label }];
  });
  return { by, alignments };
}

function nearest(candidates: Candidate[], wanted: number, most: number): Candidate | undefined {
  let best: Candidate | undefined;
  for (const c of candidates)
    if (Math.abs(c.by - wanted) < most && (!best || Math.abs(c.by - wanted) < Math.abs(best.by - wanted)))
      best = c;
  return best;
}

function axisCandidates(moving: readonly Placed[], others: readonly Placed[], way: Way): Candidate[] {
  return moving.flatMap((m) =>
    others
      .filter((o) => shares(m, o, way))
      .map((o) => ({
        by: misalignment(m, o, way),
        label: `aligned with ${o.name}`,
        with: o.geometry,
        at: o.geometry[START[way]] + o.geometry[SIZE[way]] / 2,
      })),
  );
}

function edgeCandidates(box: Box, { others, frames, guides }: Field, way: Way): Candidate[] {
  const [start, size] = [START[way], SIZE[way]];
  const by = (at: number, own: number) => at - box[start] - own * box[size];
  const lines = [...others.map((o) => o.geometry as Box), ...frames].flatMap((b) =>
    SHARES.map((share) => [b[start] + share * b[size], share, b] as const),
  );
  const fixed = (way ? guides.y : guides.x) ?? [];
  return [
    ...lines.flatMap(([at, share, other]) =>
      // Middles go with middles, edges with edges.
      SHARES.filter((own) => (own === 0.5) === (share === 0.5)).map((own) => ({
        by: by(at, own),
        label: "",
        with: other,
        at,
      })),
    ),
    ...fixed.flatMap((at) => SHARES.map((own) => ({ by: by(at, own), label: "", with: box, at }))),
  ];
}
