/** What of annotation the pointer snaps to: its points, attached to what they are on. */
import { describe, expect, it } from "vitest";
import type { Annotation, PieceBox } from "../src/api/client";
import { snapToPieces } from "../src/features/sheets/annotate/pieceSnaps";

const anchor = (x: number, y: number, element = "") => ({ at: [x, y], element, ends: [], share: 0 });
const SPECS: Record<string, unknown> = {
  chain: { kind: "dimension", points: [anchor(0, 0, "wall"), anchor(4000, 0)] },
  box: { kind: "shape", form: "rectangle", points: [anchor(100, 100), anchor(900, 500)] },
};
const boxOf = (piece: string, viewport: string, at: [number, number][]) =>
  ({ piece, viewport, at }) as unknown as PieceBox;
const BOXES = [
  // What it is attached to has moved by 30 since.
  boxOf("chain", "v", [
    [30, 0],
    [4000, 0],
  ]),
  boxOf("box", "", [
    [100, 100],
    [900, 500],
  ]),
];
const near = (through: string, x: number, y: number, but: string | null = null) =>
  snapToPieces(BOXES, (id) => SPECS[id] as Annotation["spec"], through, [x, y], 50, but);

describe("annotation", () => {
  it("is snapped to where its points lie now, on the elements that they are on", () => {
    expect(near("v", 60, 10)).toEqual({ at: [30, 0], element: "wall", kind: "annotation" });
    expect(near("v", 3990, 0)).toMatchObject({ at: [4000, 0], element: "" });
    expect(near("v", 2000, 0)).toBeNull();
  });

  it("is snapped to in its own drawing alone, and at all corners of a rectangle", () => {
    expect(near("", 890, 110)).toMatchObject({ at: [900, 100] });
    expect(near("v", 890, 110)).toBeNull();
  });

  it("is no place to attach itself to", () => {
    expect(near("v", 30, 0, "chain")).toBeNull();
  });
});
