import { expect, test } from "vitest";
import type { Mark, MarkKind } from "../src/api/client";
import {
  begun,
  cloudPath,
  drawnTo,
  isDrawn,
  mappedMark,
  markPath,
  movedPlace,
  pointsOf,
} from "../src/canvas/commentMarks";
import type { Point } from "../src/canvas/geometry";

const KINDS: MarkKind[] = ["point", "text", "arrow", "line", "cloud", "area", "length"];
const drawn = (kind: MarkKind): Mark => drawnTo(begun(kind, [10, 20]), [40, 50], 4);

test("a press alone makes a point or words, and nothing else", () => {
  expect(KINDS.filter((kind) => isDrawn(begun(kind, [10, 20]), 4))).toEqual(["point", "text"]);
  expect(KINDS.filter((kind) => isDrawn(drawn(kind), 4))).toEqual(KINDS);
});

test("an arrow is about its tip, and a cloud has the two corners that it was drawn over", () => {
  expect(pointsOf(drawn("arrow"))[0]).toEqual([40, 50]);
  expect(pointsOf(drawn("cloud"))).toEqual([
    [10, 20],
    [40, 20],
    [40, 50],
    [10, 50],
  ]);
});

test("a line by hand has a point wherever the hand was, but none for a tremble", () => {
  let line = begun("line", [0, 0]);
  for (let x = 0; x <= 10; x += 0.05) line = drawnTo(line, [x, 0], 4);
  const points = pointsOf(line);
  expect(points.length).toBeGreaterThan(15);
  expect(points.length).toBeLessThan(30);
});

test("every mark is moved with all of its points", () => {
  for (const kind of KINDS) {
    const before = pointsOf(drawn(kind));
    const after = pointsOf(mappedMark(drawn(kind), ([x, y]) => [x + 5, y - 1]));
    expect(after).toEqual(before.map(([x, y]) => [x + 5, y - 1]));
  }
});

test("a cloud bulges outward, whichever way its corners run", () => {
  const corners: Point[] = [
    [0, 0],
    [30, 0],
    [30, 30],
    [0, 30],
  ];
  // On a screen, where y grows downward, arcs that turn with the clock bulge outward of a ring that does.
  for (const ring of [corners, corners.toReversed()]) {
    const path = cloudPath(ring, 10);
    expect(path.match(/A/g)).toHaveLength(12);
    expect(path).not.toContain("0 0 0 ");
  }
});

test("only marks that are lines have a path", () => {
  const same = (at: Point) => at;
  expect(KINDS.filter((kind) => !markPath(drawn(kind), same, 4))).toEqual(["point", "text"]);
});

test("a place follows its drawing: moved, at another scale, turned", () => {
  const before = { place: [100, 100] as const, ratio: 0.01, turn: 0 };
  expect(movedPlace(before, { ...before, place: [120, 90] }, [110, 105])).toEqual([130, 95]);
  expect(movedPlace(before, { ...before, ratio: 0.02 }, [110, 105])).toEqual([120, 110]);
  const [x, y] = movedPlace(before, { ...before, turn: 90 }, [110, 100]);
  expect(x).toBeCloseTo(100);
  expect(y).toBeCloseTo(110);
});
