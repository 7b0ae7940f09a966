/** What a click makes with each tool, or goes on with. */
import type { Annotation, AnnotationSpec, DimensionSpec, Viewport } from "../../../api/client";
import { measuresFor, offsetFor } from "../../../canvas/dimensions";
import { geometryOf, inView, onPaper, type Point } from "../../../canvas/geometry";
import type { Snap } from "../../../canvas/snapPoints";
import { NO_POINTS, annotate, useAnnotating, type Tool } from "../../../stores/annotating";
import { notify, notifyError } from "../../../stores/notices";
import { select } from "../../../stores/selection";
import { rows } from "../../../sync/rows";
import type { AnnotationEdits } from "./annotationCommands";
import { ON_SHEET, anchorAt, type Home } from "./pieces";
import { FIGURE_AT, pointsOf } from "./tools";
import { t } from "../../../words/words";

/** A note's first words, to be typed over, and its place from what it points at; paper mm. */
const NEW_NOTE = t("Note");
const LEVEL_AT = 6;
const TAG_AT = 6;
const NOTE_WIDTH = 50;
const IMAGE_WIDTH = 80;
const NEW_TABLE = [
  [t("Item"), t("Number")],
  ["", ""],
  ["", ""],
];

const NEEDS_DRAWING = t("A dimension or a level measures a drawing: begin it on a viewport.");

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

const half = (mm: number) => Math.round(mm * 2) / 2;
/** From a point of a drawing to a place on paper, paper mm. */
function offsetTo(viewport: Viewport | undefined, from: Point, place: Point): [number, number] {
  const [x, y] = viewport ? onPaper(geometryOf(viewport), from) : from;
  return [half(place[0] - x), half(place[1] - y)];
}

type Maker = (
  at: Snap,
  offset: [number, number],
  leader: "arrow" | "dot" | "plain" | "none",
) => AnnotationSpec;

const INK = "#1b1f24";
/** Kinds of which one is made at a time: it is chosen, to be filled in. */
const AT_ONCE: readonly Tool[] = ["note", "schedule", "table", "cloud", "image"];

const isSame = (a: Snap | undefined, b: Snap) =>
  a !== undefined && Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]) < 1e-6;

export function pieceMakers({ project, sheet, on, edits }: Given) {
  const homeOf = (viewport: Viewport | undefined, kind: Tool): Home =>
    viewport && useAnnotating.getState().home === "view" && !ON_SHEET.includes(kind)
      ? { view: viewport.view, sheet: null, viewport: null }
      : { view: null, sheet: sheet ?? null, viewport: viewport?.id ?? null };

  async function finish(viewport: Viewport | undefined, spec: AnnotationSpec) {
    const made = await edits.add(homeOf(viewport, spec.kind), spec);
    const { tool } = useAnnotating.getState();
    if (!made || tool !== spec.kind) return;
    if (AT_ONCE.includes(spec.kind)) {
      annotate(null);
      select(made);
    } else if (spec.kind === "dimension") useAnnotating.setState({ extending: made });
    else useAnnotating.setState({ ...NO_POINTS });
  }

  async function extend(id: string, snap: Snap) {
    const piece = rows("annotations", project).find((p) => p.id === id);
    if (piece?.spec.kind !== "dimension") return;
    const points = [...piece.spec.points, anchorAt(snap)];
    await edits.changeSpec(
      piece as Annotation & { spec: DimensionSpec },
      { points },
      t("add to a dimension"),
    );
  }

  const feet = () => on.some((v) => v.scale.includes("="));
  const choose = (snap: Snap, viewport: Viewport | undefined) =>
    useAnnotating.setState((s) => ({ points: [...s.points, snap], viewport: viewport?.id ?? null }));

  /** A piece with a leader: first what it speaks of, then where it stands. */
  function withLeader({ place, snap, viewport }: Click, make: Maker) {
    const { points, leader } = useAnnotating.getState();
    const [tip] = points;
    if (!tip && viewport && leader !== "none") return choose(snap, viewport);
    const at = tip ?? snap;
    const offset: [number, number] = tip && viewport ? offsetTo(viewport, at.at, place) : [0, 0];
    return finish(viewport, make(at, offset, tip ? leader : "none"));
  }

  function shape(points: readonly Snap[], viewport: Viewport | undefined, closed: boolean) {
    const { shape: look } = useAnnotating.getState();
    return finish(viewport, {
      ...look,
      kind: "shape",
      points: points.map(anchorAt),
      closed,
      opacity: 100,
      spacing: 2,
    });
  }

  /** What a click makes, or goes on with, by what is made. */
  const makers: Record<Tool, (click: Click) => unknown> = {
    note: (click) =>
      withLeader(click, (at, offset, leader) => ({
        kind: "note",
        at: anchorAt(at),
        text: NEW_NOTE,
        offset,
        width: NOTE_WIDTH,
        size: 2.5,
        bold: false,
        colour: INK,
        named: useAnnotating.getState().textStyle,
        align: "left",
        leader,
        arms: [],
      })),
    numbered: (click) => {
      const { note, mark } = useAnnotating.getState();
      if (!note) return notify(t("Choose a note of the list first, on the ledge."), true);
      return withLeader(click, (at, offset, leader) => ({
        kind: "numbered",
        at: anchorAt(at),
        note,
        offset,
        mark,
        leader,
        arms: [],
      }));
    },
    schedule: ({ snap }) =>
      finish(undefined, {
        kind: "schedule",
        at: anchorAt(snap),
        of: "rooms",
        classes: [],
        storey: "",
        title: "",
        feet: feet(),
        columns: [],
        where: [],
        group: "",
        sort: [],
        pictures: false,
        counted: false,
        split: 0,
        named: "",
        first: 1,
        most: 0,
      }),
    table: ({ snap }) =>
      finish(undefined, {
        kind: "table",
        at: anchorAt(snap),
        cells: NEW_TABLE,
        title: "",
        header: true,
        widths: [],
        merged: [],
        borders: "all",
        split: 0,
        named: "",
        file: "",
        file_hash: "",
      }),
    cloud: ({ snap, viewport }) => {
      const [first] = useAnnotating.getState().points;
      if (!first) return choose(snap, viewport);
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
            ...useAnnotating.getState().tag,
            feet: viewport.scale.includes("="),
            override: "",
          })
        : notify(t("A tag is the label of an element. Click one."), true),
    level: ({ snap, viewport }) =>
      viewport
        ? finish(viewport, {
            kind: "level",
            at: anchorAt(snap),
            offset: LEVEL_AT,
            feet: viewport.scale.includes("="),
            override: "",
            series: "",
          })
        : notify(NEEDS_DRAWING, true),
    measure: ({ place, snap, viewport, more }) => {
      if (!viewport) return notify(NEEDS_DRAWING, true);
      const { points, measure, style, dimensionStyle } = useAnnotating.getState();
      const [least, most] = pointsOf("measure", measure);
      const again = measure === "area" && points.length >= least && isSame(points[0], snap);
      if (!again && (points.length < least || (points.length < most && more))) return choose(snap, viewport);
      if (!again && measure === "area" && points.length < most) return choose(snap, viewport);
      const from = FIGURE_AT[measure](points.map((p) => p.at));
      return finish(viewport, {
        kind: "measure",
        of: measure,
        points: points.map(anchorAt),
        offset: again ? [0, 0] : offsetTo(viewport, from, place),
        style,
        named: dimensionStyle,
        slope_in: "percent",
        override: "",
      });
    },
    shape: ({ snap, viewport }) => {
      const { points, shape: look } = useAnnotating.getState();
      const [least, most] = pointsOf("shape", look.form);
      if (isSame(points.at(-1), snap)) {
        // A second click on the last point ends the line.
        return points.length >= least ? shape(points, viewport, false) : undefined;
      }
      const closes = most > least && points.length > 2 && isSame(points[0], snap);
      if (closes) return shape(points, viewport, true);
      if (points.length + 1 < most) return choose(snap, viewport);
      return shape([...points, snap], viewport, false);
    },
    symbol: ({ snap, viewport }) => {
      const { symbol } = useAnnotating.getState();
      if (!symbol) return notify(t("Choose a symbol first, on the ledge."), true);
      return finish(viewport, {
        kind: "symbol",
        at: anchorAt(snap),
        symbol,
        turn: 0,
        size: 1,
        mirrored: false,
        words: [],
      });
    },
    image: ({ snap, viewport }) => {
      const { picture } = useAnnotating.getState();
      if (!picture) return notify(t("Choose a picture first, on the ledge."), true);
      return finish(viewport, {
        kind: "image",
        at: anchorAt(snap),
        picture,
        width: IMAGE_WIDTH,
        crop: [0, 0, 0, 0],
      });
    },
    dimension: ({ place, snap, viewport, more }) => {
      if (!viewport) return notify(NEEDS_DRAWING, true);
      const now = useAnnotating.getState();
      if (now.extending) return extend(now.extending, snap);
      if (now.measures === "along") return along(viewport, snap, now.points[0]);
      if (now.points.length < 2 || more) return choose(snap, viewport);
      const g = geometryOf(viewport);
      const points = now.points.map((p) => p.at);
      const measures = now.measures === "pointer" ? measuresFor(points, inView(g, place)) : now.measures;
      return finish(viewport, {
        kind: "dimension",
        points: now.points.map(anchorAt),
        measures,
        offset: offsetFor(g, measures, points, place),
        style: now.style,
        named: now.dimensionStyle,
        overrides: [],
        shifts: [],
        together: false,
        arrangement: now.arrangement,
        series: "",
      });
    },
  };

  /** Two points of a line, along which everything that it meets is dimensioned. */
  function along(viewport: Viewport, snap: Snap, first: Snap | undefined) {
    if (!first) return choose(snap, viewport);
    const home = homeOf(viewport, "dimension");
    useAnnotating.setState({ ...NO_POINTS });
    const { style } = useAnnotating.getState();
    edits.dimensionAlong(viewport, first.at, snap.at, style, home).catch(notifyError);
  }

  return { makers, shape };
}
