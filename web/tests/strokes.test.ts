/** What lines are stroked with on the board, where some of them are drawn otherwise. */
import { describe, expect, it, vi } from "vitest";
import type { Linework } from "../src/canvas/linework";
import type { Style } from "../src/canvas/pictures";
import { strokesOf } from "../src/canvas/strokes";

vi.stubGlobal(
  "Path2D",
  class {
    moveTo = vi.fn();
    lineTo = vi.fn();
  },
);

const points = [0, 0, 10, 0, 0, 5, 10, 5, 0, 9, 10, 9];
/** Three lines on one layer: two edges and a cut. */
const drawing = () => {
  const roles = ["edge", "edge", "cut"];
  const group = (...lines: number[]) => new Map([["Walls", { path: new Path2D(), lines }]]);
  return {
    lines: { points, starts: [0, 2, 4, 6] },
    roles: new Map([
      ["edge", group(0, 1)],
      ["cut", group(2)],
    ]),
    roleOf: (line: number) => roles[line],
    layerOf: () => "Walls",
  } as unknown as Linework;
};
const pen = (width: number) => ({ width, colour: "#000000", pattern: [], screen: 100 });
const style = (...redrawn: object[]) =>
  ({
    pens: { edge: pen(0.18), cut: pen(0.5) },
    layers: {},
    cuts: [],
    thinnest: 0,
    redrawn: redrawn.map((each) => ({ hidden: false, change: {}, whole: [], parts: [], added: [], ...each })),
  }) as unknown as Style;
/** The width of each pen, and the lines that have it. */
const drawn = (given: Style, of = drawing()) =>
  strokesOf(of, given).map((stroke) => [stroke.pen.width, [...stroke.lines()]] as const);

describe("strokes of a drawing", () => {
  it("are by role, the narrowest first", () => {
    expect(drawn(style()).map(([width, lines]) => [width, lines.length])).toEqual([
      [0.18, 2],
      [0.5, 1],
    ]);
  });

  it("leave out what is hidden, and no more", () => {
    const found = drawn(style({ hidden: true, parts: [[0, 0, 0.5]], whole: [[2, 2]] }));
    const all = found.flatMap(([, lines]) => lines);
    expect(all).toContainEqual([
      [5, 0],
      [10, 0],
    ]);
    expect(all).toContainEqual([
      [0, 5],
      [10, 5],
    ]);
    expect(all).toHaveLength(2);
  });

  it("have another pen or role where that was chosen, and draw what is added", () => {
    const found = drawn(
      style(
        { whole: [[1, 1]], change: { width: 1.4 } },
        { role: "cut", whole: [[0, 0]] },
        {
          added: [
            [
              [10, 0],
              [20, 0],
            ],
          ],
          role: "edge",
          layer: "Walls",
        },
      ),
    );
    expect(found.map(([width, lines]) => [width, lines.length])).toEqual([
      [0.18, 1],
      [0.5, 1],
      [0.5, 1],
      [1.4, 1],
    ]);
  });

  it("have new pens for the same lines without being divided again", () => {
    const one = drawing();
    const before = strokesOf(one, style({ whole: [[1, 1]], change: { width: 1.4 } }));
    const after = strokesOf(one, style({ whole: [[1, 1]], change: { width: 0.7 } }));
    expect(after.map((stroke) => stroke.pen.width)).toEqual([0.18, 0.5, 0.7]);
    expect(after[2]?.path).toBe(before[2]?.path);
  });
});
