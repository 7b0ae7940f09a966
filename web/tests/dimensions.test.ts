/** Where a dimension that is being drawn lies: its way by the pointer, its line, its true lengths. */
import { expect, it } from "vitest";
import { drafted, measuresFor, offsetFor } from "../src/canvas/dimensions";
import { holds, inView, onPaper, type Geometry } from "../src/canvas/geometry";

const PLAN: Geometry = {
  x: 100,
  y: 50,
  width: 200,
  height: 100,
  centre_u: 5000,
  centre_v: 3000,
  ratio: 1 / 100,
  turn: 0,
  shape: "rectangle",
  corners: [],
};
const POINTS = [
  [2000, 1000],
  [6200, 2500],
] as const;

it("above and below its points it measures across, beside them upright", () => {
  expect(measuresFor(POINTS, [4000, 9000])).toBe("horizontal");
  expect(measuresFor(POINTS, [-3000, 2000])).toBe("vertical");
  expect(measuresFor(POINTS, [9000, -7000])).toBe("horizontal");
});

it("of level points no height is measured, wherever the pointer is", () => {
  const level = [
    [0, 100],
    [4000, 100],
  ] as const;
  expect(measuresFor(level, [9000, 150])).toBe("horizontal");
});

it("the line goes through the pointer, at any turn of the viewport", () => {
  for (const turn of [0, 30, 90, 200]) {
    const g = { ...PLAN, turn };
    const first = onPaper(g, POINTS[0]);
    const offset = offsetFor(g, "horizontal", POINTS, onPaper(g, [9000, 4000]));
    expect(offset).toBe(30);
    const from = drafted(g, "horizontal", POINTS, offset).lines[0]?.[0] ?? [0, 0];
    expect(Math.hypot(from[0] - first[0], from[1] - first[1])).toBeCloseTo(30);
  }
});

it("its lengths are the building's, in their order along it", () => {
  const chain = [...POINTS, [3000, 0]] as [number, number][];
  const lengths = drafted(PLAN, "horizontal", chain, 10).lengths.map((l) => l.length);
  expect(lengths).toEqual([1000, 3200]);
  expect(drafted(PLAN, "aligned", POINTS, 10).lengths[0]?.length).toBeCloseTo(Math.hypot(4200, 1500));
});

it("a place of the paper and what is seen there lead to each other", () => {
  const g = { ...PLAN, turn: 37 };
  const [x, y] = onPaper(g, inView(g, [123, 77]));
  expect([x, y].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([123, 77]);
});

it("a polygon holds what lies in it, and not what lies in its notch", () => {
  const notched = [
    [0, 0],
    [10, 0],
    [10, 10],
    [5, 4],
    [0, 10],
  ] as const;
  expect(holds(notched, [2, 2])).toBe(true);
  expect(holds(notched, [5, 8])).toBe(false);
  expect(holds(notched, [-1, 2])).toBe(false);
});
