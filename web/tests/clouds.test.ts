/** Clouds: where they go when they are moved, and what they are drawn about. */
import { describe, expect, it } from "vitest";
import type { CloudSpec, Difference, Viewport } from "../src/api/client";
import { onPaper } from "../src/canvas/geometry";
import { clouded } from "../src/features/issue/issueCommands";
import { anchorAt, anchorsOf, shifted, withAnchors } from "../src/features/sheets/annotate/pieces";

const cloud: CloudSpec = {
  kind: "cloud",
  first: anchorAt({ at: [0, 0], element: "" }),
  last: anchorAt({ at: [2000, 1000], element: "" }),
  revision: "P02",
  kept: false,
};
/** 1:50, turned by a quarter. */
const viewport = {
  x: 100,
  y: 100,
  width: 200,
  height: 100,
  centre_u: 0,
  centre_v: 0,
  ratio: 1 / 50,
  turn: 90,
  shape: "rectangle",
  corners: [],
} as unknown as Viewport;

describe("a cloud", () => {
  it("moves by paper millimetres, whatever the scale and the turn of what it is seen through", () => {
    const moved = shifted(cloud, viewport, [10, -5]);
    for (const side of ["first", "last"] as const) {
      const [x, y] = onPaper(viewport, cloud[side].at);
      const [nx, ny] = onPaper(viewport, moved[side].at);
      expect(nx - x).toBeCloseTo(10, 9);
      expect(ny - y).toBeCloseTo(-5, 9);
    }
  });

  it("moves by the same on the bare sheet", () => {
    expect(shifted(cloud, undefined, [1, 2]).last.at).toEqual([2001, 1002]);
  });

  it("has two corners, which can be chosen anew", () => {
    expect(anchorsOf(cloud)).toHaveLength(2);
    const [first, last] = [anchorAt({ at: [5, 5], element: "" }), anchorAt({ at: [9, 9], element: "" })];
    expect(withAnchors(cloud, [first, last])).toEqual({ ...cloud, first, last });
  });

  it("is drawn about what differs, and not about title blocks and what only moved", () => {
    const box = { x: 1, y: 2, width: 3, height: 4 };
    const of = (kind: Difference["kind"], more = {}): Difference => ({
      kind,
      words: kind,
      viewport: "",
      box,
      ...more,
    });
    const found = clouded([
      of("lines"),
      of("dimension"),
      of("revision"),
      of("moved"),
      of("field"),
      of("text", { box: undefined }),
    ]);
    expect(found.map((d) => d.kind)).toEqual(["lines", "dimension"]);
  });
});
