/** What of a drawing is picked to be drawn otherwise, and how that is remembered. */
import { describe, expect, it } from "vitest";
import type { Point } from "../src/canvas/geometry";
import { classWords } from "../src/components/classWords";
import { lineAt, linesAlike, runOf, type Picked } from "../src/canvas/picking";
import type { Linework } from "../src/canvas/linework";
import { notHidden } from "../src/canvas/redrawn";
import { SnapIndex } from "../src/canvas/snapPoints";
import { changeWords, choiceOf, choiceWords, extension, likes } from "../src/features/sheets/touchup/choices";

/** A square of 10 whose lower side has a corner in its middle, and a line across it. */
const LINES: Point[][] = [
  [
    [0, 0],
    [4, 0],
    [10, 0],
    [10, 10],
    [0, 10],
    [0, 0],
  ],
  [
    [5, 2],
    [5, 8],
  ],
];
const starts = LINES.reduce((all, line) => [...all, (all.at(-1) ?? 0) + line.length], [0]);
const drawing = {
  lines: { points: LINES.flat(2), starts },
  elementOf: (line: number) => ["wall", "door"][line],
  roleOf: (line: number) => ["cut", "edge"][line],
  layerOf: () => "Walls",
  classOf: (line: number) => ["IfcWall", "IfcDoor"][line],
  madeOf: (line: number) => ["Brick", "Oak"][line],
} as unknown as Linework;
const index = new SnapIndex(drawing.lines, drawing.elementOf);
const circle = Array.from({ length: 37 }, (_, k): Point => {
  const angle = (k * Math.PI) / 18;
  return [100 + 50 * Math.cos(angle), 20 + 50 * Math.sin(angle)];
});
const picked = (given: Partial<Picked>): Picked => ({
  element: "wall",
  layer: "Walls",
  role: "cut",
  ifcClass: "IfcWall",
  madeOf: "Brick",
  material: null,
  points: [
    [0, 0],
    [10, 0],
  ],
  round: null,
  ...given,
});

describe("what is picked", () => {
  it("runs on from corner to corner", () => {
    const found = lineAt(drawing, index, [6, 0.5], 1, []);
    expect(found?.points).toEqual([
      [0, 0],
      [4, 0],
      [10, 0],
    ]);
    expect([found?.element, found?.role, found?.ifcClass]).toEqual(["wall", "cut", "IfcWall"]);
  });

  it("is not what is hidden already", () => {
    const part = (line: number, begin: number, end: number) => ({
      hidden: true,
      change: {},
      whole: [],
      parts: [[line, begin, end]],
      areas: [],
      added: [],
      layer: "",
    });
    const hidden = [part(1, 0, 0.5)] as never;
    expect(lineAt(drawing, index, [5.1, 3], 1, hidden)).toBeNull();
    expect(lineAt(drawing, index, [5.1, 7], 1, hidden)?.element).toBe("door");
  });

  it("leaves what is hidden to nothing that snaps", () => {
    const hide = {
      hidden: true,
      whole: [[1, 1]] as [number, number][],
      parts: [[0, 0, 1]] as [number, number, number][],
    };
    const { lines, source } = notHidden(drawing.lines, [hide]);
    const seen = new SnapIndex(lines, (line) => drawing.elementOf(source[line] ?? 0));
    expect(seen.nearest([5.1, 7], 0.5)).toBeNull();
    expect(seen.nearest([2, 0.1], 0.5)).toBeNull();
    // Where what is hidden ends the rest begins.
    expect(seen.nearest([4.1, 0.1], 0.5)).toMatchObject({ kind: "corner", at: [4, 0], element: "wall" });
    const pale = notHidden(drawing.lines, [{ ...hide, hidden: false }]);
    expect(new SnapIndex(pale.lines, () => "").nearest([5.1, 7], 0.5)).not.toBeNull();
  });

  it("is a circle by its centre and radius", () => {
    const { round, points } = runOf(circle, circle[3] as Point, circle[4] as Point);
    expect(points).toHaveLength(37);
    expect(round?.radius).toBeCloseTo(50, 6);
    expect(round?.centre[0]).toBeCloseTo(100, 6);
  });

  it("is alike in all that is said", () => {
    const blank = { element: "", ifc_class: "", made_of: "", layer: "" };
    expect(linesAlike(drawing, { ...blank, layer: "Walls" })).toEqual([0, 1]);
    expect(linesAlike(drawing, { ...blank, role: "edge" })).toEqual([1]);
    expect(linesAlike(drawing, { ...blank, shorter: 7 })).toEqual([1]);
    expect(linesAlike(drawing, { ...blank, ifc_class: "IfcWall", role: "edge" })).toEqual([]);
    expect(linesAlike(drawing, { ...blank, made_of: "Oak" })).toEqual([1]);
  });
});

describe("a touch-up", () => {
  it("remembers a line by its element and its two ends", () => {
    const choice = choiceOf(picked({}));
    expect(choice).toMatchObject({
      kind: "stretch",
      element: "wall",
      start: { at: [0, 0], element: "wall" },
    });
    expect(choiceWords(choice)).toBe("line of 10 mm");
  });

  it("of what is cut or round remembers that", () => {
    expect(choiceOf(picked({ material: "Oak", points: [] }))).toEqual({
      kind: "area",
      element: "wall",
      material: "Oak",
    });
    const round = { centre: [5, 5] as Point, radius: 3 };
    expect(choiceOf(picked({ round }))).toMatchObject({ kind: "round", radius: 3 });
  });

  it("draws a line out from the end that was clicked", () => {
    const to = picked({
      element: "other",
      points: [
        [20, -5],
        [20, 5],
      ],
    });
    expect(extension(picked({}), [9, 0], to)).toMatchObject({ start: { at: [0, 0] }, end: { at: [10, 0] } });
    expect(extension(picked({}), [1, 0], to)).toMatchObject({ start: { at: [10, 0] }, end: { at: [0, 0] } });
    expect(extension(picked({ round: { centre: [0, 0], radius: 1 } }), [1, 0], to)).toBeNull();
  });

  it("says in words what it is and does", () => {
    expect(classWords("IfcWallStandardCase")).toBe("wall");
    expect(classWords("IfcCurtainWall")).toBe("curtain wall");
    const names = likes(picked({ ifcClass: "IfcDoor", madeOf: "Oak" })).map(([name]) => name);
    expect(names).toContain("All cut lines of every door");
    expect(names).toContain("All lines of Oak");
    expect(changeWords({ hidden: true, stroke: {} })).toBe("hidden");
    expect(changeWords({ hidden: false, stroke: { width: 0.7, pattern: "dashed" } })).toBe("0.70 mm, dashed");
  });
});
