/** Pieces of annotation: what they are attached to, how they are moved, how they look, what they say. */
import { describe, expect, it } from "vitest";
import type { AnnotationSpec, NoteSpec, ShapeSpec, Viewport } from "../src/api/client";
import { linedUp, onPaper, type Geometry, type Point } from "../src/canvas/geometry";
import {
  anchorAt,
  anchorsOf,
  inLook,
  lookOf,
  movedBy,
  replacedIn,
  reworded,
  shifted,
  withAnchors,
  wordsOf,
} from "../src/features/sheets/annotate/pieces";
import { centreOf, hint, pointsOf } from "../src/features/sheets/annotate/tools";
import { numberAfter } from "../src/features/sheets/annotate/NoteList";

const anchor = (u: number, v: number) => anchorAt({ at: [u, v], element: "" });
const SHAPE: ShapeSpec = {
  kind: "shape",
  form: "line",
  points: [anchor(0, 0), anchor(1000, 0)],
  closed: false,
  width: 0.25,
  colour: "#1b1f24",
  pattern: "solid",
  fill: "",
  opacity: 100,
  hatch: "",
  spacing: 2,
};
const NOTE = {
  kind: "note",
  at: anchor(5, 5),
  arms: [anchor(9, 9)],
  text: "Oak, oiled",
  offset: [3, 4],
  size: 2.5,
  leader: "arrow",
} as unknown as NoteSpec;
const VIEWPORT = {
  x: 100, y: 100, width: 100, height: 80, centre_u: 0, centre_v: 0, ratio: 0.02, turn: 90, shape: "rectangle",
  corners: [],
} as unknown as Viewport; // prettier-ignore

describe("what a piece is attached to", () => {
  it("is given back as it was, by every kind", () => {
    for (const spec of [SHAPE, NOTE] as AnnotationSpec[]) {
      const moved = anchorsOf(spec).map(({ at }) => anchor(at[0] + 1, at[1]));
      expect(anchorsOf(withAnchors(spec, moved))).toEqual(moved);
    }
  });

  it("moves with a shape, by so much paper through a turned viewport", () => {
    const [first] = anchorsOf(shifted(SHAPE, VIEWPORT, [0, 10]));
    expect(first?.at[0]).toBeCloseTo(500);
    expect(first?.at[1]).toBeCloseTo(0);
  });

  it("stays where a note is dragged: its words move", () => {
    const moved = movedBy(NOTE, { at: [], points: [] }, undefined, [2, -1]) as NoteSpec;
    expect([moved.offset, moved.at]).toEqual([[5, 3], NOTE.at]);
  });
});

describe("the look of a piece", () => {
  it("is given to another of its kind whole, without what that says", () => {
    const look = lookOf({ ...SHAPE, width: 0.7, fill: "#ffffff" });
    const other = inLook({ ...SHAPE, points: [anchor(7, 7), anchor(8, 8)] }, look) as ShapeSpec;
    expect([other.width, other.fill, other.points[0]?.at]).toEqual([0.7, "#ffffff", [7, 7]]);
  });

  it("is given to another kind as far as that can have it", () => {
    const look = lookOf({ ...NOTE, leader: "dot" });
    const numbered = { kind: "numbered", mark: "box", leader: "none" } as unknown as AnnotationSpec;
    expect(inLook(numbered, look)).toMatchObject({ mark: "box", leader: "dot" });
  });
});

describe("words", () => {
  it("are replaced wherever they stand, and signs in them mean themselves", () => {
    expect(replacedIn("Oak (oiled), oak.", "oak", "Larch", false)).toBe("Larch (oiled), Larch.");
    expect(replacedIn("a.b a.b axb", "a.b", "$&", false)).toBe("$& $& axb");
    expect(replacedIn("Oak oak", "oak", "ash", true)).toBe("Oak ash");
  });

  it("of a table are those of its cells", () => {
    const table = { kind: "table", title: "Oak", cells: [["oak", "2"]] } as unknown as AnnotationSpec;
    expect(wordsOf(table)).toEqual(["Oak", "oak", "2"]);
    expect(wordsOf(reworded(table, (text) => text.toUpperCase()))).toEqual(["OAK", "OAK", "2"]);
  });
});

describe("tools", () => {
  it("say how many points they want and what to click next", () => {
    expect([pointsOf("shape", "circle"), pointsOf("measure", "slope")]).toEqual([
      [2, 2],
      [2, 2],
    ]);
    const now = { measures: "pointer", extending: false, attaching: false, pointsFor: null } as const;
    expect(hint({ ...now, tool: "shape", points: 0, measure: "area", form: "circle" })).toBe(
      "Click the centre.",
    );
    expect(hint({ ...now, tool: "measure", points: 3, measure: "angle", form: "line" })).toContain("figure");
    expect(hint({ ...now, tool: "shape", points: 2, measure: "area", form: "line" })).toContain("Enter");
  });

  it("find the centre of a circle through three points", () => {
    const [x, y] = centreOf([[0, 0], [10, 0], [0, 10]]); // prettier-ignore
    expect([x, y]).toEqual([5, 5]);
    expect(centreOf([[1, 2], [2, 4], [3, 6]])).toEqual([1, 2]); // prettier-ignore
  });

  it("offer the number after the last note of a list", () => {
    expect(numberAfter([])).toBe("1");
    expect(numberAfter(["1", "9", "10"])).toBe("11");
    expect(numberAfter(["A01", "A09"])).toBe("A10");
  });
});

describe("a viewport that is lined up by two points", () => {
  it("has the first where it was asked for and the second on the way to its place, at its own scale", () => {
    const g = VIEWPORT as Geometry;
    const points: [Point, Point] = [[1000, 500], [3000, 1500]]; // prettier-ignore
    const places: [Point, Point] = [[130, 120], [150, 160]]; // prettier-ignore
    const after = linedUp(g, points, places);
    expect(after.ratio).toBe(g.ratio);
    const [a, b] = points.map((point) => onPaper(after, point));
    expect(a?.[0]).toBeCloseTo(130);
    expect(a?.[1]).toBeCloseTo(120);
    const way = Math.atan2((b?.[1] ?? 0) - 120, (b?.[0] ?? 0) - 130);
    expect(way).toBeCloseTo(Math.atan2(40, 20));
  });
});
