/** What is made for a whole drawing at once: offered by the server, kept in one step that can be undone. */
import {
  api,
  data,
  type Annotation,
  type AnnotationSpec,
  type DimensionSpec,
  type SpotLevelSpec,
  type TagSpec,
  type Viewport,
} from "../../../api/client";
import { notify } from "../../../stores/notices";
import { commit } from "../../../sync/commands";
import { afterWrites, changing, deleting, rows, type Step } from "../../../sync/rows";
import type { Home } from "./pieces";
import { t } from "../../../words/words";

/** A side of a plan, as it is drawn. */
export type Side = "bottom" | "left" | "top" | "right";

/** The sides on which levels stand, and what has them. */
export type LevelSide = "left" | "right";
export type Levelled = "openings" | "slabs" | "whole";

const seriesOf = (piece: Annotation) => (piece.spec as DimensionSpec | SpotLevelSpec).series;

/** Where what is made for a whole drawing belongs. */
const homeOf = (viewport: Viewport, where: "sheet" | "view"): Home =>
  where === "view"
    ? { view: viewport.view, sheet: null, viewport: null }
    : { view: null, sheet: viewport.sheet, viewport: viewport.id };

interface Given {
  project: string;
  /** Where the next piece stands among the others. */
  next: () => number;
  rowOf: (home: Home, spec: AnnotationSpec, position?: number) => Step;
  add: (home: Home, spec: AnnotationSpec) => Promise<string | null>;
}

export function offeredPieces({ project, next, rowOf, add }: Given) {
  /**
   * Pieces that are made for whole sides of a drawing: new ones are added, those that an earlier run made are
   * brought up to date, and those that say nothing more are taken away; all in one step.
   */
  async function renew<Spec extends DimensionSpec | SpotLevelSpec>(
    name: string,
    home: Home,
    sides: readonly Side[],
    made: readonly Spec[],
    renewed: (before: Spec, now: Spec) => Spec,
  ) {
    const kind = made[0]?.kind;
    const before = rows("annotations", project).filter(
      (p) =>
        p.view === home.view &&
        p.viewport === home.viewport &&
        p.spec.kind === kind &&
        sides.some((side) => seriesOf(p).startsWith(`${side} `)),
    );
    const first = next();
    const steps = made.map((spec, k) => {
      const there = before.find((p) => seriesOf(p) === spec.series);
      return there
        ? changing("annotations", there, { spec: renewed(there.spec as Spec, spec) })
        : rowOf(home, spec, first + k);
    });
    const over = before.filter((p) => !made.some((spec) => spec.series === seriesOf(p)));
    await commit(project, name, [...steps, ...over.map((p) => deleting("annotations", p))]);
  }

  /** The chains outside a plan. Where one lies, and how it is lettered, stays as it was made. */
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
    await renew(t("dimension the outer walls"), homeOf(viewport, where), sides, chains, (before, now) => ({
      ...before,
      points: now.points,
    }));
  }

  /** The levels beside an elevation or a section; what is typed over one stays. */
  async function setLevels(
    viewport: Viewport,
    wanted: readonly Levelled[],
    side: LevelSide,
    where: "sheet" | "view",
  ) {
    const body = { viewport: viewport.id, wanted: [...wanted], side };
    const levels = (await afterWrites(() =>
      data(api.POST("/api/annotations/levels/", { body })),
    )) as unknown as SpotLevelSpec[];
    await renew(t("set levels"), homeOf(viewport, where), [side], levels, (before, now) => ({
      ...before,
      at: now.at,
      offset: now.offset,
    }));
  }

  /** The chain along a line that was drawn across a plan: through every face of a wall that it meets. */
  async function dimensionAlong(
    viewport: Viewport,
    from: [number, number],
    to: [number, number],
    figures: DimensionSpec["style"],
    home: Home,
  ): Promise<string | null> {
    const body = { viewport: viewport.id, start: from, end: to, figures };
    const chain = (await afterWrites(() =>
      data(api.POST("/api/annotations/inner-chain/", { body })),
    )) as unknown as DimensionSpec;
    return add(home, chain);
  }

  /** Tags of the elements of some classes: those that have none yet get one, all in one step. */
  async function tagAll(
    viewport: Viewport,
    classes: readonly string[],
    shows: TagSpec["shows"],
    value: string,
    where: "sheet" | "view",
  ) {
    const body = { viewport: viewport.id, classes: [...classes], shows, value };
    const tags = (await afterWrites(() =>
      data(api.POST("/api/annotations/tags/", { body })),
    )) as unknown as TagSpec[];
    const home = homeOf(viewport, where);
    const tagged = new Set(
      rows("annotations", project)
        .filter((p) => p.view === viewport.view || p.viewport === viewport.id)
        .map((p) => (p.spec.kind === "tag" ? `${p.spec.at.element} ${p.spec.shows} ${p.spec.source}` : "")),
    );
    const first = next();
    const steps = tags
      .filter((tag) => !tagged.has(`${tag.at.element} ${tag.shows} ${tag.source}`))
      .map((tag, k) => rowOf(home, tag, first + k));
    if (!steps.length) notify(t("All of these have a tag here already."));
    else
      await commit(project, t("tag {which}", { which: steps.length === 1 ? t("one") : steps.length }), steps);
  }

  return { tagAll, dimensionOutside, setLevels, dimensionAlong };
}
