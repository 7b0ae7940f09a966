/**
 * What is done with points that are clicked and make no piece: shapes mirrored, repeated, broken; a note with
 * one more leader; a viewport lined up.
 */
import type { Annotation, ShapeSpec, Viewport } from "../../../api/client";
import { geometryOf, linedUp, type Geometry, type Point } from "../../../canvas/geometry";
import type { Snap } from "../../../canvas/snapPoints";
import { annotate, useAnnotating } from "../../../stores/annotating";
import { notify } from "../../../stores/notices";
import { select } from "../../../stores/selection";
import { rows } from "../../../sync/rows";
import type { AnnotationEdits } from "./annotationCommands";
import { anchorAt } from "./pieces";
import { isThere } from "./snapping";
import { POINTS_FOR } from "./tools";
import { t } from "../../../words/words";

interface Given {
  project: string;
  on: readonly Viewport[];
  edits: AnnotationEdits;
  onLinedUp: (viewport: Viewport, to: Geometry) => void;
}

export function doneWithPoints({ project, on, edits, onLinedUp }: Given) {
  /** Whether a place lies in another drawing than a piece does: it would be taken for one of its own. */
  function isElsewhere(piece: Annotation, through: string | null): boolean {
    const seen = on.find((v) => v.id === through);
    const elsewhere = piece.view ? seen?.view !== piece.view : piece.viewport !== through;
    if (elsewhere)
      notify(t("It belongs to another drawing. Click where that is seen, or make a new one here."), true);
    return elsewhere;
  }

  /** Points that are clicked for what is done to shapes, or to a viewport. */
  async function pointed(snap: Snap, place: Point, through: string | null) {
    const { pointsFor, points } = useAnnotating.getState();
    if (!pointsFor) return;
    // What lies in another drawing is told by where it is on paper.
    const all = [
      ...points,
      isThere(pointsFor, points.length) ? { ...snap, at: [...place] as typeof snap.at } : snap,
    ];
    if (all.length < POINTS_FOR[pointsFor.what].length) return useAnnotating.setState({ points: all });
    annotate(null);
    const [at, to] = all.map((p) => p.at);
    if (pointsFor.what === "leader") return addLeader(pointsFor.of[0], snap, through);
    if (pointsFor.what === "line up") {
      lineUp(
        pointsFor.of[0],
        all.map((p) => p.at),
      );
      return;
    }
    const shapes = rows("annotations", project).filter(
      (p): p is Annotation & { spec: ShapeSpec } => pointsFor.of.includes(p.id) && p.spec.kind === "shape",
    );
    await edits.editShapes(shapes, {
      edit: pointsFor.what,
      at,
      to,
      ...(pointsFor.what === "array" && { count: 1 }),
    });
  }

  /** One more leader of a note. */
  async function addLeader(id: string | undefined, snap: Snap, through: string | null) {
    const piece = rows("annotations", project).find((p) => p.id === id);
    if (!piece || !("arms" in piece.spec) || isElsewhere(piece, through)) return;
    const leader = piece.spec.leader === "none" ? "arrow" : piece.spec.leader;
    const spec = { ...piece.spec, leader, arms: [...piece.spec.arms, anchorAt(snap)] };
    await edits.change([piece], () => ({ spec }), t("add a leader"));
    select(piece.id);
  }

  /** Turn and shift a viewport so that two of its points lie where they were clicked in another drawing. */
  function lineUp(id: string | undefined, [a, b, c, d]: readonly Point[]) {
    const viewport = on.find((v) => v.id === id);
    if (!viewport || !a || !b || !c || !d) return;
    const own = Math.hypot(c[0] - a[0], c[1] - a[1]) * viewport.ratio;
    const there = Math.hypot(d[0] - b[0], d[1] - b[1]);
    if (own < 1 || there < 1) return notify(t("The two points lie too near to each other."), true);
    const differs = Math.abs(own / there - 1);
    if (differs > 0.005)
      notify(
        t("The two points are {differs} % further apart in one: look at its unit, ", {
          differs: (differs * 100).toFixed(1),
        }) + t("and whether both viewports have one scale."),
        true,
      );
    onLinedUp(viewport, linedUp(geometryOf(viewport), [a, c], [b, d]));
    select(viewport.id);
  }

  return { isElsewhere, pointed };
}
