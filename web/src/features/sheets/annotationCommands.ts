/** Changes to annotation: shown at once, written in order, and able to be undone. */
import { useMemo } from "react";
import {
  api,
  data,
  type Anchor,
  type Annotation,
  type AnnotationSpec,
  type CloudSpec,
  type DimensionSpec,
  type PieceBox,
  type ScheduleSpec,
  type TagSpec,
  type Viewport,
} from "../../api/client";
import { geometryOf, inView, onPaper, type Point } from "../../canvas/geometry";
import type { Snap } from "../../canvas/snapPoints";
import { notify } from "../../stores/notices";
import { select } from "../../stores/selection";
import { commit } from "../../sync/commands";
import { afterWrites, changing, deleting, making, newId, rows } from "../../sync/rows";

/** Where a piece stands: in a view; or on a sheet, there through a viewport or on the bare paper. */
export type Home = Pick<Annotation, "view" | "sheet" | "viewport">;

/** A side of a plan, as it is drawn. */
export type Side = "bottom" | "left" | "top" | "right";

/** What can be tagged for a whole drawing. */
export type Tagged = "doors" | "windows";

/** What the kinds of annotation are called in a sentence. */
export const KIND_NAMES: Record<AnnotationSpec["kind"], string> = {
  note: "note",
  dimension: "dimension",
  level: "spot level",
  schedule: "schedule",
  cloud: "cloud",
  tag: "tag",
};

/** What was clicked, as the server takes it: it finds out which corner that is. */
export const anchorAt = ({ at, element }: Pick<Snap, "at" | "element">): Anchor => ({
  at,
  element,
  ends: [],
  share: 0,
});

export function anchorsOf(spec: AnnotationSpec): Anchor[] {
  if (spec.kind === "dimension") return spec.points;
  if (spec.kind === "cloud") return [spec.first, spec.last];
  return spec.kind === "note" ? [spec.at, ...spec.arms] : [spec.at];
}

/** A piece attached to other points, as many as it has. */
export function withAnchors<S extends AnnotationSpec>(spec: S, anchors: readonly Anchor[]): S {
  const [at, ...arms] = anchors;
  if (spec.kind === "dimension") return { ...spec, points: anchors };
  if (spec.kind === "cloud") return { ...spec, first: anchors[0], last: anchors[1] };
  return spec.kind === "note" ? { ...spec, at, arms } : { ...spec, at };
}

/** Where what is made for a whole drawing belongs. */
const homeOf = (viewport: Viewport, where: "sheet" | "view"): Home =>
  where === "view"
    ? { view: viewport.view, sheet: null, viewport: null }
    : { view: null, sheet: viewport.sheet, viewport: viewport.id };

/** A schedule whose corner is moved by a distance, paper mm. */
export const shiftedSchedule = (spec: ScheduleSpec, [dx, dy]: Point): ScheduleSpec => ({
  ...spec,
  at: anchorAt({ at: [spec.at.at[0] + dx, spec.at.at[1] + dy], element: "" }),
});

/** A cloud that is moved by a distance, paper mm; `viewport` is what it is seen through, if it is. */
export function shiftedCloud(spec: CloudSpec, viewport: Viewport | undefined, [dx, dy]: Point): CloudSpec {
  const shifted = ({ at }: Anchor): Anchor => {
    const g = viewport && geometryOf(viewport);
    const [x, y] = g ? onPaper(g, at) : at;
    const place: Point = [x + dx, y + dy];
    return anchorAt({ at: g ? [...inView(g, place)] : [...place], element: "" });
  };
  return { ...spec, first: shifted(spec.first), last: shifted(spec.last) };
}

/** A piece whose words or line are moved by a little; a dimension's line only away from what it measures. */
function nudged({ spec, viewport, project }: Annotation, dx: number, dy: number): AnnotationSpec {
  if (spec.kind === "cloud") {
    const seen = rows("viewports", project).find((v) => v.id === viewport);
    return shiftedCloud(spec, seen, [dx, dy]);
  }
  if (spec.kind === "note" || spec.kind === "tag")
    return { ...spec, offset: [spec.offset[0] + dx, spec.offset[1] + dy] };
  if (spec.kind === "level") return { ...spec, offset: spec.offset + dx };
  if (spec.kind === "schedule") return shiftedSchedule(spec, [dx, dy]);
  return { ...spec, offset: spec.offset + (spec.measures === "vertical" ? -dx : dy) };
}

export function useAnnotationEdits(project: string) {
  return useMemo(() => {
    const next = () => Math.max(-1, ...rows("annotations", project).map((p) => p.position)) + 1;
    const rowOf = (home: Home, spec: AnnotationSpec, position = next()) =>
      making("annotations", { id: newId(), project, ...home, position, spec });

    /** A new piece; its id, or null where it was refused. */
    async function add(home: Home, spec: AnnotationSpec): Promise<string | null> {
      const step = rowOf(home, spec);
      return (await commit(project, `add a ${KIND_NAMES[spec.kind]}`, [step])) ? step.id : null;
    }

    const change = (
      pieces: readonly Annotation[],
      to: (p: Annotation) => Partial<Annotation>,
      what: string,
    ) =>
      commit(
        project,
        what,
        pieces.map((p) => changing("annotations", p, to(p))),
      );

    const changeSpec = <S extends AnnotationSpec>(
      piece: Annotation & { spec: S },
      to: Partial<S>,
      what: string,
    ) => change([piece], (p) => ({ spec: { ...p.spec, ...to } as AnnotationSpec }), what);

    function remove(pieces: readonly Annotation[]) {
      const [first] = pieces;
      if (!first) return;
      select(null);
      const what = pieces.length === 1 ? `a ${KIND_NAMES[first.spec.kind]}` : `${pieces.length} pieces`;
      void commit(
        project,
        `delete ${what}`,
        pieces.map((p) => deleting("annotations", p)),
      );
    }

    /** What has changed is right as it is now: from here on the new lengths are the ones to compare with. */
    const accept = (piece: Annotation, box: PieceBox) =>
      change(
        [piece],
        ({ spec }) => ({
          spec: withAnchors(
            spec,
            anchorsOf(spec).map(({ at, element }, k) => anchorAt({ at: box.at[k] ?? at, element })),
          ),
        }),
        "accept what has changed",
      );

    /** Move the words and lines of pieces by a distance, paper mm. */
    const nudge = (pieces: readonly Annotation[], dx: number, dy: number) =>
      change(pieces, (p) => ({ spec: nudged(p, dx, dy) }), "nudge annotation");

    /** Copies of what stands on a bare sheet, on another in the same places; the rest is left as it is. */
    function copyTo(pieces: readonly Annotation[], sheet: string) {
      const first = next();
      const steps = pieces
        .filter((p) => p.sheet !== null && p.viewport === null)
        .map((p, k) => rowOf({ view: null, sheet, viewport: null }, p.spec, first + k));
      if (!steps.length) return;
      void commit(project, steps.length === 1 ? "paste a piece" : `paste ${steps.length} pieces`, steps);
      select(steps.map((s) => s.id));
    }

    /**
     * The chains outside a plan: new ones are added, those that an earlier run made are brought up to date
     * where they lie, and those that say nothing more are taken away; all in one step.
     */
    async function dimensionOutside(
      viewport: Viewport,
      sides: readonly Side[],
      figures: DimensionSpec["style"],
      where: "sheet" | "view",
    ) {
      const body = { viewport: viewport.id, sides: [...sides], figures };
      const chains = (await afterWrites(() =>
        data(api.POST("/api/annotations/outer-chains/", { body })),
      )) as unknown as DimensionSpec[];
      const home = homeOf(viewport, where);
      const before = rows("annotations", project).filter(
        (p) =>
          p.view === home.view &&
          p.viewport === home.viewport &&
          p.spec.kind === "dimension" &&
          sides.some((side) => (p.spec as DimensionSpec).series.startsWith(`${side} `)),
      );
      const seriesOf = (p: Annotation) => (p.spec as DimensionSpec).series;
      const first = next();
      const steps = chains.map((spec, k) => {
        const there = before.find((p) => seriesOf(p) === spec.series);
        // Where one lies, and how it is lettered, stays as somebody may have made it.
        return there
          ? changing("annotations", there, {
              spec: { ...(there.spec as DimensionSpec), points: spec.points },
            })
          : rowOf(home, spec, first + k);
      });
      const over = before.filter((p) => !chains.some((spec) => spec.series === seriesOf(p)));
      await commit(project, "dimension the outer walls", [
        ...steps,
        ...over.map((p) => deleting("annotations", p)),
      ]);
    }

    /** Tags of doors and windows: those that have none yet get one, all in one step. */
    async function tagOpenings(
      viewport: Viewport,
      of: readonly Tagged[],
      shows: TagSpec["shows"],
      where: "sheet" | "view",
    ) {
      const body = { viewport: viewport.id, of: [...of], shows };
      const tags = (await afterWrites(() =>
        data(api.POST("/api/annotations/tags/", { body })),
      )) as unknown as TagSpec[];
      const home = homeOf(viewport, where);
      const tagged = new Set(
        rows("annotations", project)
          .filter((p) => p.view === viewport.view || p.viewport === viewport.id)
          .map((p) => (p.spec.kind === "tag" ? p.spec.at.element : "")),
      );
      const first = next();
      const steps = tags
        .filter((tag) => !tagged.has(tag.at.element))
        .map((tag, k) => rowOf(home, tag, first + k));
      if (!steps.length) notify("Every door and window here has a tag already.");
      await commit(project, `tag ${of.join(" and ")}`, steps);
    }

    return {
      tagOpenings,
      dimensionOutside,
      add,
      change,
      changeSpec,
      remove,
      accept,
      nudge,
      copyTo,
    };
  }, [project]);
}

export type AnnotationEdits = ReturnType<typeof useAnnotationEdits>;
