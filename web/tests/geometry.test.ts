/** What gestures make of viewports: none changes a scale, and what is seen stays where it is on paper. */
import { describe, expect, it } from "vitest";
import {
  cropped,
  crosses,
  fitted,
  fittedBeside,
  fittedTo,
  moved,
  outlined,
  placementOf,
  rungFor,
  shifted,
  toPaper,
  toScreen,
  zoomed,
  type Geometry,
} from "../src/canvas/geometry";
import { snapped, type Placed } from "../src/canvas/snapping";

const VIEWPORT: Geometry = {
  x: 30,
  y: 40,
  width: 200,
  height: 100,
  ratio: 0.01,
  centre_u: 5000,
  centre_v: 2000,
  turn: 20,
  shape: "rectangle",
  corners: [],
};

describe("a viewport", () => {
  it.each([{ west: 12 }, { east: -30, north: 8 }, { south: 5, west: -4 }])(
    "cropped by %o keeps its scale and its drawing in place",
    (sides) => {
      const after = cropped(VIEWPORT, sides);
      expect(after.ratio).toBe(VIEWPORT.ratio);
      placementOf(after).place.forEach((figure, k) =>
        expect(figure).toBeCloseTo(placementOf(VIEWPORT).place[k] ?? NaN, 9),
      );
    },
  );

  it("moved takes its drawing along", () => {
    const [x = 0, y = 0] = placementOf(VIEWPORT).place;
    expect(placementOf(moved(VIEWPORT, 7, -3)).place.map((f) => f.toFixed(6))).toEqual([
      (x + 7).toFixed(6),
      (y - 3).toFixed(6),
    ]);
  });

  it("whose contents are moved stays where it is, and they go with the pointer", () => {
    const after = shifted(VIEWPORT, 10, 5);
    expect([after.x, after.y, after.width, after.height]).toEqual([30, 40, 200, 100]);
    const [before, now] = [placementOf(VIEWPORT).place, placementOf(after).place];
    expect((now[0] ?? 0) - (before[0] ?? 0)).toBeCloseTo(10, 9);
    expect((now[1] ?? 0) - (before[1] ?? 0)).toBeCloseTo(5, 9);
  });

  it("drawn by its corners lies in their box", () => {
    const after = outlined(VIEWPORT, [
      [50, 60],
      [90, 60],
      [70, 100],
    ]);
    expect([after.x, after.y, after.width, after.height, after.shape]).toEqual([50, 60, 40, 40, "polygon"]);
    expect(after.corners).toEqual([
      [0, 0],
      [40, 0],
      [20, 40],
    ]);
  });

  it("fitted to its drawing shows all of it at the same scale", () => {
    const after = fittedTo({ ...VIEWPORT, turn: 0 }, [0, 0, 8000, 6000]);
    expect([after.ratio, after.width >= 80, after.height >= 60]).toEqual([0.01, true, true]);
  });
});

it("an outline that crosses itself is known", () => {
  expect(
    crosses([
      [0, 0],
      [10, 10],
      [10, 0],
      [0, 10],
    ]),
  ).toBe(true);
  expect(
    crosses([
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ]),
  ).toBe(false);
});

it("the largest scale at which a drawing fits is taken, the smallest where none does", () => {
  const ladder = [0.02, 0.01, 0.005].map((ratio) => ({ ratio }));
  expect(rungFor([0, 0, 10_000, 5000], { width: 120, height: 80 }, ladder)?.ratio).toBe(0.01);
  expect(rungFor([0, 0, 90_000, 5000], { width: 120, height: 80 }, ladder)?.ratio).toBe(0.005);
});

it("what lies under the pointer stays there when the board is zoomed", () => {
  const camera = { scale: 2, x: 100, y: 500 };
  const under = toPaper(camera, 340, 220);
  const [x, y] = toScreen(zoomed(camera, 1.7, 340, 220), ...under);
  expect(x).toBeCloseTo(340, 9);
  expect(y).toBeCloseTo(220, 9);
});

describe("what is dragged", () => {
  const axes = { right: [1, 0, 0], up: [0, 0, 1], origin: [0, 0, 0] } as Placed["axes"];
  const placed = (id: string, geometry: Partial<Geometry>): Placed => ({
    id,
    name: id,
    axes,
    geometry: { ...VIEWPORT, turn: 0, ...geometry },
  });
  const alone = { frames: [], guides: {} };

  it("snaps to where another elevation has the building at the same height", () => {
    const south = placed("South", { y: 40 });
    const { by, alignments } = snapped(
      [placed("East", { x: 400, y: 90 })],
      { others: [south], ...alone },
      3,
      -48,
      2,
    );
    expect([by[0], by[1]]).toEqual([3, -50]);
    expect(alignments.map((a) => a.label)).toContain("aligned with South");
  });

  it("does not align drawings of different scales by the building", () => {
    const south = placed("South", { y: 40, ratio: 0.02 });
    const found = snapped([placed("East", { x: 900, y: 93 })], { others: [south], ...alone }, 0, 0, 2);
    expect(found.alignments.map((a) => a.label)).not.toContain("aligned with South");
  });

  it("snaps to a guide, and to nothing that is far", () => {
    const one = [placed("One", { x: 30, y: 40 })];
    const field = { others: [], frames: [], guides: { x: [50] } };
    expect(snapped(one, field, 19, 0, 2).by[0]).toBe(20);
    expect(snapped(one, field, 12, 0, 2).by[0]).toBe(12);
  });
});

describe("a sheet on the board", () => {
  const A3 = { x: 0, y: 0, width: 420, height: 297 };
  const across = (at: { scale: number; x: number }) => [at.x, at.x + A3.width * at.scale] as const;

  it("is in the middle where the tools at the left have room beside it", () => {
    const wide = { width: 1600, height: 700 };
    expect(fittedBeside(A3, wide, 160)).toEqual(fitted(A3, wide));
  });

  it("goes aside for the tools as large as it was, where there is room for it", () => {
    const space = { width: 1000, height: 620 };
    const at = fittedBeside(A3, space, 160);
    expect(at.scale).toBe(fitted(A3, space).scale);
    expect(across(at)[0]).toBeCloseTo(160);
    expect(across(at)[1]).toBeLessThan(space.width);
  });

  it("is smaller where there is not, and still whole", () => {
    const space = { width: 820, height: 620 };
    const at = fittedBeside(A3, space, 160);
    expect(at.scale).toBeLessThan(fitted(A3, space).scale);
    expect(across(at)[0]).toBeCloseTo(160);
    expect(across(at)[1]).toBeLessThan(space.width);
  });
});
