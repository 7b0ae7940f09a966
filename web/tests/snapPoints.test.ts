/** What the pointer snaps to: corners before crossings, middles and edges; within reach, and the nearest. */
import { describe, expect, it } from "vitest";
import { snapToLines, type ReferenceLine } from "../src/canvas/referenceLines";
import { SnapIndex } from "../src/canvas/snapPoints";

type Line = readonly (readonly [number, number])[];

/** An index of lines, each of an element named by its number. */
function indexOf(...lines: Line[]): SnapIndex {
  const starts = [0];
  for (const line of lines) starts.push((starts.at(-1) ?? 0) + line.length);
  return new SnapIndex({ points: lines.flat(2), starts }, (line) => `element ${line}`);
}

const WALL: Line = [
  [0, 0],
  [4000, 0],
  [4000, 300],
  [0, 300],
  [0, 0],
];

it("a corner is taken before the edge that the pointer is nearer to", () => {
  expect(indexOf(WALL).nearest([3920, 10], 100)).toEqual({
    kind: "corner",
    at: [4000, 0],
    element: "element 0",
  });
});

it("an edge gives the foot of the pointer on it, its middle where that is near", () => {
  const index = indexOf(WALL);
  expect(index.nearest([1000, -40], 100)).toMatchObject({ kind: "edge", at: [1000, 0] });
  expect(index.nearest([2030, -20], 100)).toMatchObject({ kind: "middle", at: [2000, 0] });
});

it("what is round has its centre, also where nothing is drawn there", () => {
  const ring = Array.from({ length: 41 }, (_, k): [number, number] => [
    500 * Math.cos((k * Math.PI) / 20),
    500 * Math.sin((k * Math.PI) / 20),
  ]);
  const found = indexOf(ring).nearest([20, -30], 100);
  expect(found?.kind).toBe("centre");
  expect(Math.hypot(...(found?.at ?? [9, 9]))).toBeLessThan(0.01);
});

it("lines that cross are snapped to where they do", () => {
  const index = indexOf(
    [
      [0, 0],
      [4000, 4000],
    ],
    [
      [0, 3000],
      [3000, 0],
    ],
  );
  expect(index.nearest([1520, 1490], 100)).toMatchObject({ kind: "crossing", at: [1500, 1500] });
});

it("what is round has no corners, but where it ends", () => {
  const arc = Array.from({ length: 46 }, (_, k): [number, number] => [
    1000 * Math.cos((k * Math.PI) / 90),
    1000 * Math.sin((k * Math.PI) / 90),
  ]);
  const index = indexOf(arc);
  expect(index.nearest([1000, 10], 50)).toMatchObject({ kind: "corner", at: [1000, 0] });
  expect(index.nearest([720, 700], 50)?.kind).toBe("edge");
});

it("nothing is snapped to beyond reach, or where there is nothing", () => {
  expect(indexOf(WALL).nearest([2000, 150], 100)).toBeNull();
  expect(indexOf().nearest([0, 0], 100)).toBeNull();
});

it("the element is that of the line which is snapped to", () => {
  const other: Line = WALL.map(([x, y]) => [x, y + 5000]);
  expect(indexOf(WALL, other).nearest([10, 5010], 100)?.element).toBe("element 1");
});

it("the answer is that of looking at every line, wherever the pointer is", () => {
  // Many short walls in rows, and pointers between them: a fixed sequence, so that a failure comes again.
  let seed = 7;
  const random = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const lines = Array.from({ length: 300 }, (): Line => {
    const [x, y] = [random() * 50_000, random() * 30_000];
    return [
      [x, y],
      [x + random() * 6000, y + random() * 6000],
    ];
  });
  const index = indexOf(...lines);
  for (let k = 0; k < 200; k++) {
    const at = [random() * 55_000, random() * 35_000] as const;
    const nearest = Math.min(...lines.flat().map(([x, y]) => Math.hypot(x - at[0], y - at[1])));
    const found = index.nearest(at, 400);
    if (nearest <= 400) {
      expect(found?.kind).toBe("corner");
      expect(Math.hypot((found?.at[0] ?? 0) - at[0], (found?.at[1] ?? 0) - at[1])).toBeCloseTo(nearest);
    } else expect(found?.kind).not.toBe("corner");
  }
});

describe("grid lines and levels", () => {
  const lines = [
    { id: "grid:A", ends: [[0, 0], [0, 9000]] },
    { id: "grid:1", ends: [[-500, 300], [4000, 300]] },
  ] as unknown as ReferenceLine[]; // prettier-ignore

  it("are snapped to where two cross, before a place on one", () => {
    expect(snapToLines(lines, [20, 280], 50)).toEqual({ at: [0, 300], element: "grid:A", kind: "crossing" });
    expect(snapToLines(lines, [20, 5000], 50)).toEqual({ at: [0, 5000], element: "grid:A", kind: "edge" });
    expect(snapToLines(lines, [900, 900], 50)).toBeNull();
  });
});
