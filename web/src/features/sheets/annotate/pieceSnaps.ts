/** The points of annotation that the pointer snaps to: what is made there is attached to what they are on. */
import type { Annotation, PieceBox } from "../../../api/client";
import type { Point } from "../../../canvas/geometry";
import type { Snap } from "../../../canvas/snapPoints";
import { anchorsOf } from "./pieces";

/** The points of a piece and the elements that they are on; of a rectangle, its other two corners as well. */
export function snapPointsOf(box: PieceBox, spec: Annotation["spec"]): { at: Point; element: string }[] {
  const anchors = anchorsOf(spec);
  const own = box.at.map((at, k) => ({ at: at as Point, element: anchors[k]?.element ?? "" }));
  const [first, last] = own;
  if (spec.kind !== "shape" || spec.form !== "rectangle" || !first || !last) return own;
  const others: Point[] = [
    [first.at[0], last.at[1]],
    [last.at[0], first.at[1]],
  ];
  return [...own, ...others.map((at) => ({ at, element: "" }))];
}

/**
 * What of some annotation lies nearest to a point, within reach.
 *
 * @param through the viewport that is looked through; blank for the bare sheet.
 * @param but a piece that is not snapped to: what is attached anew is no place to attach it to.
 */
export function snapToPieces(
  boxes: readonly PieceBox[],
  specOf: (id: string) => Annotation["spec"] | undefined,
  through: string,
  at: Point,
  reach: number,
  but: string | null,
): Snap | null {
  let best: Snap | null = null;
  let far = reach;
  for (const box of boxes) {
    if (box.viewport !== through || box.piece === but) continue;
    const spec = specOf(box.piece);
    if (!spec) continue;
    for (const point of snapPointsOf(box, spec)) {
      const away = Math.hypot(point.at[0] - at[0], point.at[1] - at[1]);
      if (away > far) continue;
      far = away;
      best = { at: [point.at[0], point.at[1]], element: point.element, kind: "annotation" };
    }
  }
  return best;
}
