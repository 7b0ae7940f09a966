/** What a place on the board is attached to: the viewport that it is seen through, and what lies near. */
import type { DisplayList, ModelVersion, Viewport } from "../../../api/client";
import { queryClient } from "../../../api/queryClient";
import { geometryOf, holds, inView, outlineOf, type Point } from "../../../canvas/geometry";
import { pictures } from "../../../canvas/pictures";
import { redrawnIn } from "../../../canvas/redrawn";
import { referenceLines, snapToLines } from "../../../canvas/referenceLines";
import type { Snap } from "../../../canvas/snapPoints";
import { useAnnotating, type PointsFor } from "../../../stores/annotating";
import { useBoard } from "../../../stores/board";
import { rows } from "../../../sync/rows";
import { snapToPieces } from "./pieceSnaps";

/** How near to something the pointer snaps to it; pixels. */
const REACH = 10;

/** Whether the next point is one in the other drawing. */
export const isThere = (of: PointsFor, clicked: number) => of.what === "line up" && clicked % 2 === 1;

export function snapping(project: string, sheet: string | undefined, on: readonly Viewport[]) {
  const viewportAt = (place: Point): Viewport | undefined => {
    const { viewport, points, tool, pointsFor } = useAnnotating.getState();
    if (pointsFor?.what === "line up") {
      const own = pointsFor.of[0];
      if (!isThere(pointsFor, points.length)) return on.find((v) => v.id === own);
      return on.findLast((v) => v.id !== own && holds(outlineOf(geometryOf(v)), place));
    }
    // A table stands on the sheet.
    if (tool === "schedule" || tool === "table") return undefined;
    // What was begun through a viewport goes on through it, or on the bare sheet.
    if (points.length) return on.find((v) => v.id === viewport);
    return on.findLast((v) => holds(outlineOf(geometryOf(v)), place));
  };

  async function snapAt(place: Point, free: boolean): Promise<{ snap: Snap; viewport: string | null }> {
    const viewport = viewportAt(place);
    const { tool } = useAnnotating.getState();
    const camera = useBoard.getState().camera?.scale ?? 1;
    if (!viewport) {
      const near = free || tool === "cloud" ? null : onPieces("", place, REACH / camera);
      return { snap: near ?? { at: [...place], element: "", kind: "free" }, viewport: null };
    }
    const at = inView(geometryOf(viewport), place);
    if (tool === "cloud") return { snap: { at: [...at], element: "", kind: "free" }, viewport: viewport.id };
    const reach = REACH / (camera * viewport.ratio);
    const found = free ? null : await snapIn(viewport, at, reach);
    return { snap: found ?? { at: [...at], element: "", kind: "free" }, viewport: viewport.id };
  }

  /** The nearest point of the annotation that is seen through a viewport, or stands on the bare sheet. */
  function onPieces(through: string, at: Point, reach: number): Snap | null {
    const boxes = queryClient.getQueryData<DisplayList>(["display", sheet])?.pieces ?? [];
    if (!boxes.length) return null;
    const specs = new Map(rows("annotations", project).map((p) => [p.id, p.spec]));
    return snapToPieces(boxes, (id) => specs.get(id), through, at, reach, useAnnotating.getState().attaching);
  }

  /** A corner, a centre, a crossing of the drawing, else annotation, grid and levels, else what is near. */
  async function snapIn(viewport: Viewport, at: Point, reach: number): Promise<Snap | null> {
    const redrawn = redrawnIn(queryClient.getQueryData<DisplayList>(["display", sheet]), viewport.id);
    const drawn = viewport.linework ? await pictures.snapAt(viewport.linework, at, reach, redrawn) : null;
    if (drawn?.kind === "corner" || drawn?.kind === "centre") return drawn;
    const piece = onPieces(viewport.id, at, reach);
    if (piece) return piece;
    const own = rows("views", project).find((view) => view.id === viewport.view);
    const [version] = queryClient.getQueryData<ModelVersion[]>(["model-versions", project]) ?? [];
    if (!viewport.axes || own?.spec.kind === "received" || !version) return drawn;
    const line = snapToLines(referenceLines(viewport.axes, version.facts), at, reach);
    return line && (line.kind === "crossing" || drawn?.kind !== "crossing") ? line : drawn;
  }

  return { snapAt };
}
