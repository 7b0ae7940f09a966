/** What clicks do while something is annotated: they choose points, place what is made, and add to it. */
import { useMemo } from "react";
import type { Annotation, AnnotationSpec, DimensionSpec, Viewport } from "../../api/client";
import { measuresFor, offsetFor } from "../../canvas/dimensions";
import { geometryOf, holds, inView, onPaper, outlineOf, type Point } from "../../canvas/geometry";
import { pictures } from "../../canvas/pictures";
import type { Snap } from "../../canvas/snapPoints";
import { NO_POINTS, annotate, useAnnotating, type Tool } from "../../stores/annotating";
import { useBoard } from "../../stores/board";
import { notify } from "../../stores/notices";
import { select } from "../../stores/selection";
import { rows } from "../../sync/rows";
import { anchorAt, anchorsOf, withAnchors, type AnnotationEdits, type Home } from "./annotationCommands";

/** How near to something the pointer snaps to it; pixels. */
const REACH = 10;
/** A note's first words, to be typed over, and its place from what it points at; paper mm. */
const NEW_NOTE = "Note";
const LEVEL_AT = 6;
const TAG_AT = 6;
const NOTE_WIDTH = 50;

const NEEDS_DRAWING = "A dimension or a level measures a drawing: begin it on a viewport.";

/** A click: where it was on paper, what it snapped to, through which viewport, and whether points go on. */
interface Click {
  place: Point;
  snap: Snap;
  viewport: Viewport | undefined;
  more: boolean;
}

interface Given {
  project: string;
  sheet: string | undefined;
  on: readonly Viewport[];
  edits: AnnotationEdits;
}

export function useAnnotate({ project, sheet, on, edits }: Given) {
  return useMemo(() => {
    const viewportAt = (place: Point): Viewport | undefined => {
      const { viewport, points, tool } = useAnnotating.getState();
      // A table stands on the sheet.
      if (tool === "schedule") return undefined;
      // What was begun through a viewport goes on through it, or on the bare sheet.
      if (points.length) return on.find((v) => v.id === viewport);
      return on.findLast((v) => holds(outlineOf(geometryOf(v)), place));
    };

    async function snapAt(place: Point, free: boolean): Promise<{ snap: Snap; viewport: string | null }> {
      const viewport = viewportAt(place);
      if (!viewport) return { snap: { at: [...place], element: "", kind: "free" }, viewport: null };
      const at = inView(geometryOf(viewport), place);
      if (useAnnotating.getState().tool === "cloud")
        return { snap: { at: [...at], element: "", kind: "free" }, viewport: viewport.id };
      const scale = (useBoard.getState().camera?.scale ?? 1) * viewport.ratio;
      const found =
        viewport.linework && !free ? await pictures.snapAt(viewport.linework, at, REACH / scale) : null;
      return { snap: found ?? { at: [...at], element: "", kind: "free" }, viewport: viewport.id };
    }

    let asked = 0;
    async function hover(place: Point, free: boolean) {
      const number = ++asked;
      useAnnotating.setState({ pointer: place });
      const found = await snapAt(place, free);
      // Only where the pointer is now is of interest.
      if (number === asked && useAnnotating.getState().tool) useAnnotating.setState({ hover: found });
    }

    const homeOf = (viewport: Viewport | undefined): Home =>
      viewport && useAnnotating.getState().home === "view" && useAnnotating.getState().tool !== "cloud"
        ? { view: viewport.view, sheet: null, viewport: null }
        : { view: null, sheet: sheet ?? null, viewport: viewport?.id ?? null };

    async function finish(viewport: Viewport | undefined, spec: AnnotationSpec) {
      const made = await edits.add(homeOf(viewport), spec);
      const { tool } = useAnnotating.getState();
      if (!made || tool !== spec.kind) return;
      if (tool === "note" || tool === "schedule" || tool === "cloud") {
        annotate(null);
        select(made);
      } else if (tool === "level" || tool === "tag") useAnnotating.setState({ ...NO_POINTS });
      else useAnnotating.setState({ extending: made });
    }

    async function extend(id: string, snap: Snap) {
      const piece = rows("annotations", project).find((p) => p.id === id);
      if (piece?.spec.kind !== "dimension") return;
      const points = [...piece.spec.points, anchorAt(snap)];
      await edits.changeSpec(piece as Annotation & { spec: DimensionSpec }, { points }, "add to a dimension");
    }

    async function attach(id: string, points: readonly Snap[], through: string | null) {
      const piece = rows("annotations", project).find((p) => p.id === id);
      if (!piece) return annotate(null);
      const seen = on.find((v) => v.id === through);
      // Places of another drawing would be taken for places of its own.
      if (piece.view ? seen?.view !== piece.view : piece.viewport !== through)
        return notify(
          "It belongs to another drawing. Click where that is seen, or make a new one here.",
          true,
        );
      const wanted = anchorsOf(piece.spec).length;
      if (points.length < wanted) return useAnnotating.setState({ points, viewport: through });
      annotate(null);
      await edits.change(
        [piece],
        (p) => ({ spec: withAnchors(p.spec, points.map(anchorAt)) }),
        "attach again",
      );
      select(id);
    }

    const feet = () => on.some((v) => v.scale.includes("="));

    /** What a click makes, or goes on with, by what is made. */
    const makers: Record<Tool, (click: Click) => unknown> = {
      note: ({ place, snap, viewport }) => {
        const { points, leader } = useAnnotating.getState();
        const [tip] = points;
        if (!tip && viewport && leader !== "none")
          return useAnnotating.setState({ points: [snap], viewport: viewport.id });
        const at = tip ?? snap;
        const [fx, fy] = tip && viewport ? onPaper(geometryOf(viewport), at.at) : place;
        return finish(viewport, {
          kind: "note",
          at: anchorAt(at),
          text: NEW_NOTE,
          offset: [Math.round((place[0] - fx) * 2) / 2, Math.round((place[1] - fy) * 2) / 2],
          width: NOTE_WIDTH,
          size: 2.5,
          bold: false,
          align: "left",
          leader: tip ? leader : "none",
          arms: [],
        });
      },
      schedule: ({ snap }) =>
        finish(undefined, {
          kind: "schedule",
          at: anchorAt(snap),
          of: "rooms",
          storey: "",
          title: "",
          feet: feet(),
        }),
      cloud: ({ snap, viewport }) => {
        const [first] = useAnnotating.getState().points;
        if (!first) return useAnnotating.setState({ points: [snap], viewport: viewport?.id ?? null });
        const own = rows("sheets", project).find((s) => s.id === sheet);
        return finish(viewport, {
          kind: "cloud",
          first: anchorAt({ ...first, element: "" }),
          last: anchorAt({ ...snap, element: "" }),
          revision: own?.revisions.at(-1)?.revision ?? "",
          kept: false,
        });
      },
      tag: ({ snap, viewport }) =>
        viewport && snap.element
          ? finish(viewport, {
              kind: "tag",
              at: anchorAt(snap),
              offset: [0, TAG_AT],
              shows: "number",
              feet: viewport.scale.includes("="),
              override: "",
            })
          : notify("A tag is the label of a door or a window. Click one.", true),
      level: ({ snap, viewport }) =>
        viewport
          ? finish(viewport, {
              kind: "level",
              at: anchorAt(snap),
              offset: LEVEL_AT,
              feet: viewport.scale.includes("="),
              override: "",
            })
          : notify(NEEDS_DRAWING, true),
      dimension: ({ place, snap, viewport, more }) => {
        if (!viewport) return notify(NEEDS_DRAWING, true);
        const now = useAnnotating.getState();
        if (now.extending) return extend(now.extending, snap);
        if (now.points.length < 2 || more)
          return useAnnotating.setState({ points: [...now.points, snap], viewport: viewport.id });
        const g = geometryOf(viewport);
        const points = now.points.map((p) => p.at);
        const measures = now.measures === "pointer" ? measuresFor(points, inView(g, place)) : now.measures;
        return finish(viewport, {
          kind: "dimension",
          points: now.points.map(anchorAt),
          measures,
          offset: offsetFor(g, measures, points, place),
          style: now.style,
          overrides: [],
          together: false,
          series: "",
        });
      },
    };

    async function click(place: Point, { free, more }: { free: boolean; more: boolean }) {
      const { snap, viewport: through } = await snapAt(place, free);
      const { attaching, points, tool } = useAnnotating.getState();
      if (attaching) await attach(attaching, [...points, snap], through);
      else if (tool) await makers[tool]({ place, snap, viewport: on.find((v) => v.id === through), more });
    }

    /** Enter: what is made is done, and another can be begun. */
    const done = () => useAnnotating.setState({ ...NO_POINTS });
    /** Escape: the points that were chosen are dropped; with none, the tool is put away. */
    const cancel = () => {
      const { points, extending, attaching } = useAnnotating.getState();
      if ((points.length || extending) && !attaching) done();
      else annotate(null);
    };
    const back = () => useAnnotating.setState((s) => (s.extending ? {} : { points: s.points.slice(0, -1) }));
    return { hover, click, done, cancel, back };
  }, [project, sheet, on, edits]);
}

export type Annotate = ReturnType<typeof useAnnotate>;
