/** What of a drawing is drawn otherwise, or left out; as the core divides it (drafting/styles/redrawn.py). */
import type { DisplayList, DrawingItem } from "../api/client";
import type { Polylines } from "./linework";

export type Redrawn = DrawingItem["redrawn"][number];
/** A line that is as it was; one that is divided into pieces. */
export const [OWN, DIVIDED] = [-1, -2] as const;

/** A part of a line, and the number of what redraws it. */
export interface Piece {
  line: number;
  points: [number, number][];
  by: number;
}
type Span = readonly [begin: number, end: number, by: number];

/** For each line what redraws all of it, and the pieces of divided ones: what comes later goes over. */
export function divided(
  { points, starts }: Polylines,
  redrawn: readonly Pick<Redrawn, "whole" | "parts">[],
): { by: Int32Array; pieces: Piece[] } {
  const count = Math.max(starts.length - 1, 0);
  const by = new Int32Array(count).fill(OWN);
  const spans = new Map<number, Span[]>();
  redrawn.forEach(({ whole = [], parts = [] }, k) => {
    for (const [first, last] of whole) {
      by.fill(k, first, last + 1);
      for (const line of spans.keys()) if (line >= first && line <= last) spans.delete(line);
    }
    for (const [line, begin, end] of parts) {
      if (line < 0 || line >= count) continue;
      const size = (starts[line + 1] ?? 0) - (starts[line] ?? 0);
      spans.set(line, over(spans.get(line) ?? [[0, size - 1, by[line] ?? OWN]], begin, end, k));
    }
  });
  const pieces: Piece[] = [];
  for (const [line, own] of [...spans].sort((a, b) => a[0] - b[0])) {
    by[line] = DIVIDED;
    const from = starts[line] ?? 0;
    const size = (starts[line + 1] ?? 0) - from;
    const corner = (k: number): [number, number] => [
      points[2 * (from + k)] ?? 0,
      points[2 * (from + k) + 1] ?? 0,
    ];
    for (const [begin, end, what] of own)
      pieces.push({ line, points: between(corner, size, begin, end), by: what });
  }
  return { by, pieces };
}

/** Spans along a line with another laid over them. */
function over(spans: readonly Span[], begin: number, end: number, what: number): Span[] {
  const low = Math.max(begin, spans[0]?.[0] ?? 0);
  const high = Math.min(end, spans.at(-1)?.[1] ?? 0);
  if (low >= high) return [...spans];
  return [
    ...spans.filter(([a]) => a < low).map(([a, b, k]): Span => [a, Math.min(b, low), k]),
    [low, high, what],
    ...spans.filter(([, b]) => b > high).map(([a, b, k]): Span => [Math.max(a, high), b, k]),
  ];
}

function between(
  corner: (k: number) => [number, number],
  size: number,
  begin: number,
  end: number,
): [number, number][] {
  const at = (place: number): [number, number] => {
    const k = Math.min(Math.floor(place), size - 2);
    const [[ax, ay], [bx, by]] = [corner(k), corner(k + 1)];
    return [ax + (place - k) * (bx - ax), ay + (place - k) * (by - ay)];
  };
  const inner: [number, number][] = [];
  for (let k = Math.floor(begin) + 1; k < Math.ceil(end); k++) inner.push(corner(k));
  return [at(begin), ...inner, at(end)];
}

/** What redraws a cut region. */
export const areaBy = <Entry extends Pick<Redrawn, "areas">>(redrawn: readonly Entry[], area: number) =>
  redrawn.findLast(({ areas }) => areas.some(([first, last]) => area >= first && area <= last));

/** What of a viewport's drawing is drawn otherwise now. */
export const redrawnIn = (display: DisplayList | undefined, viewport: string): DrawingItem["redrawn"] =>
  display?.items.find((item): item is DrawingItem => item.type === "drawing" && item.viewport === viewport)
    ?.redrawn ?? [];

/** The lines, and parts of lines, that are not hidden, and which line of the drawing each is of. */
export function notHidden(
  lines: Polylines,
  redrawn: readonly Pick<Redrawn, "whole" | "parts" | "hidden">[],
): { lines: Polylines; source: number[] } {
  const { by, pieces } = divided(lines, redrawn);
  const isSeen = (what: number) => what !== DIVIDED && !(what >= 0 && redrawn[what]?.hidden);
  const points: number[] = [];
  const starts = [0];
  const source: number[] = [];
  const end = (line: number) => {
    starts.push(points.length / 2);
    source.push(line);
  };
  by.forEach((what, line) => {
    if (!isSeen(what)) return;
    for (let k = 2 * (lines.starts[line] ?? 0); k < 2 * (lines.starts[line + 1] ?? 0); k++)
      points.push(lines.points[k] ?? 0);
    end(line);
  });
  for (const piece of pieces)
    if (isSeen(piece.by)) {
      points.push(...piece.points.flat());
      end(piece.line);
    }
  return { lines: { points, starts }, source };
}
