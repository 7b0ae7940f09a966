import { expect, test } from "vitest";
import { toScreen } from "../src/canvas/geometry";
import { byThree, onScan, onSheet, screenMatrix } from "../src/canvas/scans";

/** A scan at 10 pixels for a mm, a little askew. */
const LIES = { a: 0.1, b: 0.004, c: 12, d: 0.004, e: -0.1, f: 280 };

test("a place goes to the scan and back", () => {
  const [x, y] = onSheet(LIES, onScan(LIES, [150, 90]));
  expect(x).toBeCloseTo(150);
  expect(y).toBeCloseTo(90);
});

test("three points lay a scan, and three on a line do not", () => {
  const pixels = [
    [100, 200],
    [3000, 250],
    [400, 2000],
  ] as const;
  const places = pixels.map((pixel) => onSheet(LIES, pixel)) as unknown as typeof pixels;
  const found = byThree(pixels, places);
  for (const key of ["a", "b", "c", "d", "e", "f"] as const) expect(found?.[key]).toBeCloseTo(LIES[key], 9);
  expect(byThree([[0, 0], [100, 100], [200, 201]], places)).toBeNull(); // prettier-ignore
});

test("on the screen a scan lies where its sheet does", () => {
  const camera = { scale: 2.5, x: 40, y: 700 };
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0] = (
    screenMatrix(LIES, camera).match(/-?[\d.]+/g) ?? []
  ).map(Number);
  const [column, row] = [800, 1200];
  const [x, y] = toScreen(camera, ...onSheet(LIES, [column, row]));
  expect(a * column + c * row + e).toBeCloseTo(x);
  expect(b * column + d * row + f).toBeCloseTo(y);
});
