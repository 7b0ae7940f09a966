/** What clicks do while something is annotated: they choose points, place what is made, and add to it. */
import { useMemo } from "react";
import type { Viewport } from "../../../api/client";
import { geometryOf, onPaper, type Geometry, type Point } from "../../../canvas/geometry";
import type { Snap } from "../../../canvas/snapPoints";
import { NO_POINTS, annotate, useAnnotating } from "../../../stores/annotating";
import { notifyError } from "../../../stores/notices";
import { select } from "../../../stores/selection";
import { rows } from "../../../sync/rows";
import type { AnnotationEdits } from "./annotationCommands";
import { pieceMakers } from "./makers";
import { anchorAt, anchorsOf, withAnchors } from "./pieces";
import { doneWithPoints } from "./pointsFor";
import { snapping } from "./snapping";
import { pointsOf } from "./tools";
import { t } from "../../../words/words";

interface Given {
  project: string;
  sheet: string | undefined;
  on: readonly Viewport[];
  edits: AnnotationEdits;
  onLinedUp: (viewport: Viewport, to: Geometry) => void;
}

export function useAnnotate({ project, sheet, on, edits, onLinedUp }: Given) {
  return useMemo(() => {
    const { snapAt } = snapping(project, sheet, on);
    const { makers, shape } = pieceMakers({ project, sheet, on, edits });
    const { isElsewhere, pointed } = doneWithPoints({ project, on, edits, onLinedUp });

    let asked = 0;
    async function hover(place: Point, free: boolean) {
      const number = ++asked;
      useAnnotating.setState({ pointer: place });
      const found = await snapAt(place, free);
      // Only where the pointer is now is of interest.
      if (number === asked && useAnnotating.getState().tool) useAnnotating.setState({ hover: found });
    }

    async function attach(id: string, points: readonly Snap[], through: string | null) {
      const piece = rows("annotations", project).find((p) => p.id === id);
      if (!piece) return annotate(null);
      if (isElsewhere(piece, through)) return;
      const wanted = anchorsOf(piece.spec).length;
      if (points.length < wanted) return useAnnotating.setState({ points, viewport: through });
      annotate(null);
      await edits.change(
        [piece],
        (p) => ({ spec: withAnchors(p.spec, points.map(anchorAt)) }),
        t("attach again"),
      );
      select(id);
    }

    const paperOf = (snap: Snap, through: string | null, place: Point): Point => {
      const viewport = on.find((v) => v.id === through);
      return viewport ? onPaper(geometryOf(viewport), snap.at) : place;
    };

    // Finding what a click snaps to takes a moment: what is clicked and pressed meanwhile waits its turn.
    const turns = { last: Promise.resolve() };
    const inTurn = (what: () => unknown) =>
      (turns.last = turns.last.then(async () => void (await what())).catch(notifyError));
    const click = (place: Point, how: { free: boolean; more: boolean }) => inTurn(() => clicked(place, how));

    async function clicked(place: Point, { free, more }: { free: boolean; more: boolean }) {
      const { snap, viewport: through } = await snapAt(place, free);
      const { attaching, points, tool, pointsFor } = useAnnotating.getState();
      if (pointsFor) await pointed(snap, paperOf(snap, through, place), through).catch(notifyError);
      else if (attaching) await attach(attaching, [...points, snap], through);
      else if (tool) await makers[tool]({ place, snap, viewport: on.find((v) => v.id === through), more });
    }

    /** Enter: what is made is done, and another can be begun. */
    const done = () => inTurn(ended);
    const ended = () => {
      const { tool, points, viewport, shape: look } = useAnnotating.getState();
      const through = on.find((v) => v.id === viewport);
      if (tool === "shape" && points.length >= pointsOf("shape", look.form)[0])
        return void shape(points, through, false);
      useAnnotating.setState({ ...NO_POINTS });
    };
    /** Escape: the points that were chosen are dropped; with none, the tool is put away. */
    const cancel = () => {
      const { points, extending, attaching, pointsFor } = useAnnotating.getState();
      if ((points.length || extending) && !attaching && !pointsFor) useAnnotating.setState({ ...NO_POINTS });
      else annotate(null);
    };
    const back = () => useAnnotating.setState((s) => (s.extending ? {} : { points: s.points.slice(0, -1) }));
    return { hover, click, done, cancel, back, snapAt };
  }, [project, sheet, on, edits, onLinedUp]);
}

export type Annotate = ReturnType<typeof useAnnotate>;
