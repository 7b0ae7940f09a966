/** Views that are made from points drawn on a plan. */
import { describe, expect, it } from "vitest";
import type { Point } from "../src/canvas/geometry";
import { specOf, squared, wanted } from "../src/features/views/drawn";
import { summary, type Spec } from "../src/features/views/kinds";

const PLAN: Spec = { kind: "plan", storey: "Ground floor", cut: 1200 };
const FIGURES = { depth: null, eyeHeight: 1600, targetHeight: 1200, floor: 3000, angle: 60 };
const ORIGIN = [100, 200, 0];
const made = (kind: Spec["kind"], points: Point[], shape: "rectangle" | "circle" | "polygon" = "rectangle") =>
  specOf(kind, shape, points, PLAN, ORIGIN, FIGURES);

describe("a section", () => {
  it("runs along its line, in model millimetres", () => {
    expect(
      made("section", [
        [0, 0],
        [5000, 0],
      ])?.line,
    ).toEqual([
      [100, 200],
      [5100, 200],
    ]);
  });
  it("may have jogs, and does not end in one", () => {
    const jogged: Point[] = [
      [0, 0],
      [2000, 0],
      [2000, 800],
      [4000, 800],
    ];
    expect(made("section", jogged)?.line).toHaveLength(4);
    expect(made("section", jogged.slice(0, 3))).toBeNull();
  });
  it("is straight where it nearly is, and jogs at right angles", () => {
    expect(squared("section", [[0, 0]], [5000, 120], false)).toEqual([5000, 0]);
    expect(squared("section", [[0, 0]], [5000, 120], true)).toEqual([5000, 120]);
    expect(
      squared(
        "section",
        [
          [0, 0],
          [5000, 0],
        ],
        [5300, 900],
        false,
      ),
    ).toEqual([5000, 900]);
  });
  it("never goes back along its line", () => {
    const [u] = squared(
      "section",
      [
        [0, 0],
        [5000, 0],
        [5000, 900],
      ],
      [1000, 900],
      false,
    );
    expect(u).toBeGreaterThan(5000);
  });
});

describe("other views", () => {
  it("an elevation looks at the face that was drawn along, from the right of its way", () => {
    // Drawn from west to east, it is seen from the south.
    expect(
      made("elevation", [
        [0, 0],
        [5000, 0],
      ])?.bearing,
    ).toBe(180);
    expect(
      made("elevation", [
        [5000, 0],
        [0, 0],
      ])?.bearing,
    ).toBe(0);
    expect(
      made("elevation", [
        [0, 0],
        [0, 5000],
      ])?.bearing,
    ).toBe(90);
  });
  it("a perspective has its eye and target at their heights above the floor", () => {
    const spec = made("perspective", [
      [0, 0],
      [4000, 3000],
    ]);
    expect([spec?.eye, spec?.target]).toEqual([
      [100, 200, 4600],
      [4100, 3200, 4200],
    ]);
  });
  it("a detail shows a region of the view that it was drawn on", () => {
    expect(
      made("detail", [
        [0, 0],
        [900, 700],
      ])?.region,
    ).toEqual({ shape: "rectangle", corner: [0, 0], opposite: [900, 700] });
    expect(
      made(
        "detail",
        [
          [0, 0],
          [300, 400],
        ],
        "circle",
      )?.region,
    ).toEqual({ shape: "circle", centre: [0, 0], radius: 500 });
    const corners: Point[] = [
      [0, 0],
      [900, 0],
      [400, 700],
    ];
    expect(made("detail", corners, "polygon")?.region).toEqual({ shape: "polygon", corners });
    expect(made("detail", corners, "polygon")?.of).toEqual(PLAN);
    expect(made("detail", corners.slice(0, 2), "polygon")).toBeNull();
  });
  it("are not made of points that are too few or too near", () => {
    expect(made("section", [[0, 0]])).toBeNull();
    expect(
      made("elevation", [
        [0, 0],
        [4, 3],
      ]),
    ).toBeNull();
    expect(wanted("section", "rectangle")).toEqual([2, 40]);
  });
});

it.each([
  [PLAN, "Ground floor, cut at 1.20 m"],
  [{ kind: "elevation", side: "south", near: 400 }, "South side, limited"],
  [
    {
      kind: "section",
      line: [
        [0, 0],
        [1, 0],
        [1, 1],
        [2, 1],
      ],
    },
    "along a line with jogs",
  ],
  [{ kind: "axonometric", corner: "se" }, "from the south-east"],
  [{ kind: "detail", of: PLAN }, "of a plan"],
] as [Spec, string][])("%o is summed up", (spec, words) => expect(summary(spec, "metres")).toBe(words));
