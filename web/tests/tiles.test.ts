import { expect, test } from "vitest";
import { levelFor, TILE, tilesSeen } from "../src/canvas/tiles";

/** An A3 sheet as the server cuts it. */
const SHEET = { width: 420, height: 297 };
const LEVELS = [1.5, 3, 6, 12].map((per_mm) => ({
  per_mm,
  columns: Math.ceil((SHEET.width * per_mm) / TILE),
  rows: Math.ceil((SHEET.height * per_mm) / TILE),
}));
const SPACE = { width: 1000, height: 700 };

test("the coarsest level that looks sharp is taken, and the finest beyond it", () => {
  expect([0.5, 1.5, 1.7, 5.9, 12, 40].map((perMm) => levelFor(LEVELS, perMm))).toEqual([0, 0, 1, 2, 3, 3]);
});

test("a whole sheet needs the coarsest tiles alone", () => {
  const seen = tilesSeen(LEVELS, SHEET, { scale: 1.5, x: 0, y: 297 * 1.5 }, SPACE, 1);
  expect(new Set(seen.map((tile) => tile.level))).toEqual(new Set([0]));
  expect(seen).toHaveLength((LEVELS[0]?.columns ?? 0) * (LEVELS[0]?.rows ?? 0));
});

test("tiles of a level cover the sheet without a gap, the last as far as its pixels reach", () => {
  const seen = tilesSeen(LEVELS, SHEET, { scale: 1.5, x: 0, y: 297 * 1.5 }, SPACE, 1);
  const first = seen.filter((tile) => tile.row === 0).toSorted((a, b) => a.column - b.column);
  first.slice(1).forEach((tile, k) => {
    const before = first[k];
    expect(tile.left).toBeCloseTo((before?.left ?? 0) + (before?.width ?? 0), 9);
  });
  const last = first.at(-1);
  expect((last?.left ?? 0) + (last?.width ?? 0)).toBeCloseTo(Math.ceil(420 * 1.5) / 1.5, 9);
});

test("close by, only what is in sight is asked for, over the coarsest", () => {
  // The upper right corner of the sheet in the upper left corner of the space, 12 pixels for a mm.
  const camera = { scale: 12, x: -400 * 12, y: 297 * 12 };
  const seen = tilesSeen(LEVELS, SHEET, camera, SPACE, 1).filter((tile) => tile.level === 3);
  expect(new Set(seen.map((tile) => tile.row))).toEqual(new Set([0, 1]));
  expect(Math.min(...seen.map((tile) => tile.column))).toBe(Math.floor((400 * 12) / TILE));
});

test("a screen of twice the pixels takes a finer level", () => {
  const camera = { scale: 1.5, x: 0, y: 297 * 1.5 };
  const levels = (ratio: number) => tilesSeen(LEVELS, SHEET, camera, SPACE, ratio).map((tile) => tile.level);
  expect(Math.max(...levels(2))).toBe(1);
});
