/** How a scan lies on its sheet: mm = a * column + b * row + c, and d * column + e * row + f. */
import type { Camera, Point } from "./geometry";

export interface Lies {
  a: number;
  b: number;
  c: number;
  d: number;
  e: number;
  f: number;
}

/** A pixel of a scan on its sheet, mm. */
export const onSheet = ({ a, b, c, d, e, f }: Lies, [column, row]: Point): Point => [
  a * column + b * row + c,
  d * column + e * row + f,
];

/** A place of the sheet on a scan, as column and row. */
export function onScan({ a, b, c, d, e, f }: Lies, [x, y]: Point): Point {
  const by = a * e - b * d;
  return [(e * (x - c) - b * (y - f)) / by, (a * (y - f) - d * (x - c)) / by];
}

/** As CSS has it: where the pixels of a scan come to lie on the screen. */
export function screenMatrix({ a, b, c, d, e, f }: Lies, { scale, x, y }: Camera): string {
  const parts = [a * scale, -d * scale, b * scale, -e * scale, x + c * scale, y - f * scale];
  return `matrix(${parts.join(", ")})`;
}

type Three = readonly [Point, Point, Point];

/** How a scan lies whose three pixels are at three places; null where they lie on one line. */
export function byThree(pixels: Three, places: Three): Lies | null {
  const [[x0, y0], [x1, y1], [x2, y2]] = pixels;
  const by = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0);
  const size = Math.max(Math.hypot(x1 - x0, y1 - y0), Math.hypot(x2 - x0, y2 - y0));
  // The third lies nearer to the line of the others than a hundredth of their distance.
  if (Math.abs(by) < size * size * 0.01) return null;
  const along = (k: 0 | 1) => {
    const [p, q, r] = [places[0][k], places[1][k], places[2][k]];
    const across = ((q - p) * (y2 - y0) - (r - p) * (y1 - y0)) / by;
    const down = ((x1 - x0) * (r - p) - (x2 - x0) * (q - p)) / by;
    return [across, down, p - across * x0 - down * y0] as const;
  };
  const [a, b, c] = along(0);
  const [d, e, f] = along(1);
  return { a, b, c, d, e, f };
}
