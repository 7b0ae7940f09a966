/** Pieces of annotation as the screen handles them: what they are called, what they are attached to, and how
 * they are moved. */
import type { Anchor, Annotation, AnnotationSpec, PieceBox, Viewport } from "../../../api/client";
import { offsetFor, wayOf } from "../../../canvas/dimensions";
import { geometryOf, inView, onPaper, turned, type Point } from "../../../canvas/geometry";
import type { Snap } from "../../../canvas/snapPoints";
import { t } from "../../../words/words";

export type Kind = AnnotationSpec["kind"];

/** Where a piece stands: in a view; or on a sheet, there through a viewport or on the bare paper. */
export type Home = Pick<Annotation, "view" | "sheet" | "viewport">;

/** What the kinds of annotation are called in a sentence. */
export const KIND_NAMES: Record<Kind, string> = {
  note: t("note"),
  numbered: t("numbered note"),
  dimension: t("dimension"),
  measure: t("measure"),
  level: t("spot level"),
  schedule: t("schedule"),
  table: t("table"),
  cloud: t("cloud"),
  tag: t("tag"),
  shape: t("shape"),
  symbol: t("symbol"),
  image: t("image"),
};

/** How a piece stands to what it is attached to. */
export const STANDINGS: Readonly<Record<string, string>> = { changed: t("changed"), lost: t("lost") };

/** Kinds that stand on the bare sheet alone. */
export const ON_SHEET: readonly Kind[] = ["schedule", "table", "cloud"];

/** What was clicked, as the server takes it: it finds out which corner that is. */
export const anchorAt = ({ at, element }: Pick<Snap, "at" | "element">): Anchor => ({
  at,
  element,
  ends: [],
  share: 0,
});

export function anchorsOf(spec: AnnotationSpec): Anchor[] {
  if ("points" in spec) return spec.points;
  if ("first" in spec && spec.kind === "cloud") return [spec.first, spec.last];
  if ("arms" in spec) return [spec.at, ...spec.arms];
  return "at" in spec ? [spec.at] : [];
}

/** A piece attached to other points, as many as it has. */
export function withAnchors<S extends AnnotationSpec>(spec: S, anchors: readonly Anchor[]): S {
  const [at, ...arms] = anchors;
  if ("points" in spec) return { ...spec, points: anchors };
  if (spec.kind === "cloud") return { ...spec, first: anchors[0], last: anchors[1] };
  return "arms" in spec ? { ...spec, at, arms } : { ...spec, at };
}

/** A piece whose points are all moved by a distance, paper mm; `viewport` is what it is seen through. */
export function shifted<S extends AnnotationSpec>(
  spec: S,
  viewport: Viewport | undefined,
  [dx, dy]: Point,
): S {
  const g = viewport && geometryOf(viewport);
  const anchors = anchorsOf(spec).map(({ at }): Anchor => {
    const [x, y] = g ? onPaper(g, at) : at;
    const place: Point = [x + dx, y + dy];
    return anchorAt({ at: g ? [...inView(g, place)] : [...place], element: "" });
  });
  return withAnchors(spec, anchors);
}

const tenth = (mm: number) => Math.round(mm * 10) / 10;

/** A piece moved by a distance on paper: its words or its line, and not what it is attached to. */
export function movedBy(
  spec: AnnotationSpec,
  box: Pick<PieceBox, "at" | "points">,
  viewport: Viewport | undefined,
  by: Point,
): AnnotationSpec {
  switch (spec.kind) {
    case "note":
    case "numbered":
    case "tag":
    case "measure":
      return { ...spec, offset: [tenth(spec.offset[0] + by[0]), tenth(spec.offset[1] + by[1])] };
    case "level":
      return viewport
        ? { ...spec, offset: tenth(spec.offset + turned(by, -geometryOf(viewport).turn)[0]) }
        : spec;
    case "dimension": {
      if (!viewport) return spec;
      const g = geometryOf(viewport);
      const [x, y] = turned(wayOf(spec.measures, box.at), g.turn);
      const [px = 0, py = 0] = box.points[0] ?? [];
      // Where a point of its line has gone.
      const place: Point = [px - y * spec.offset + by[0], py + x * spec.offset + by[1]];
      return { ...spec, offset: offsetFor(g, spec.measures, box.at, place) };
    }
    default:
      return shifted(spec, viewport, [tenth(by[0]), tenth(by[1])]);
  }
}

/** A piece nudged by a little; a dimension's line only away from what it measures. */
export function nudged(
  spec: AnnotationSpec,
  viewport: Viewport | undefined,
  [dx, dy]: Point,
): AnnotationSpec {
  switch (spec.kind) {
    case "note":
    case "numbered":
    case "tag":
    case "measure":
      return { ...spec, offset: [spec.offset[0] + dx, spec.offset[1] + dy] };
    case "level":
      return { ...spec, offset: spec.offset + dx };
    case "dimension":
      return { ...spec, offset: spec.offset + (spec.measures === "vertical" ? -dx : dy) };
    default:
      return shifted(spec, viewport, [dx, dy]);
  }
}

/** What of a piece is its look, and not what it says or where it stands. */
const LOOK: Partial<Record<Kind, readonly string[]>> = {
  note: ["size", "bold", "colour", "named", "align", "leader"],
  numbered: ["mark", "leader"],
  dimension: ["style", "named", "together", "arrangement", "extension"],
  measure: ["style", "named", "slope_in"],
  level: ["feet"],
  tag: ["shows", "source", "feet"],
  shape: ["width", "colour", "pattern", "fill", "opacity", "hatch", "spacing"],
  symbol: ["size", "mirrored", "turn"],
  schedule: ["feet", "split", "named"],
  table: ["header", "borders", "widths", "split", "named"],
};

/** The look of a piece, to be given to others: between kinds, what both have. */
export function lookOf(spec: AnnotationSpec): Record<string, unknown> {
  const own = spec as unknown as Record<string, unknown>;
  return Object.fromEntries((LOOK[spec.kind] ?? []).map((key) => [key, own[key]]));
}

/** A piece in the look of another, as far as it can have that. */
export function inLook(spec: AnnotationSpec, look: Readonly<Record<string, unknown>>): AnnotationSpec {
  const keys = (LOOK[spec.kind] ?? []).filter((key) => key in look);
  return { ...spec, ...Object.fromEntries(keys.map((key) => [key, look[key]])) } as AnnotationSpec;
}

/** Where words stand in a piece, to be found and replaced. */
export function wordsOf(spec: AnnotationSpec): string[] {
  switch (spec.kind) {
    case "note":
      return [spec.text];
    case "dimension":
      return spec.overrides;
    case "measure":
    case "level":
    case "tag":
      return [spec.override];
    case "schedule":
      return [spec.title];
    case "table":
      return [spec.title, ...spec.cells.flat()];
    case "symbol":
      return spec.words;
    default:
      return [];
  }
}

/** A piece with its words changed, each by `to`. */
export function reworded(spec: AnnotationSpec, to: (words: string) => string): AnnotationSpec {
  switch (spec.kind) {
    case "note":
      return { ...spec, text: to(spec.text) };
    case "dimension":
      return { ...spec, overrides: spec.overrides.map(to) };
    case "measure":
    case "level":
    case "tag":
      return { ...spec, override: to(spec.override) };
    case "schedule":
      return { ...spec, title: to(spec.title) };
    case "table":
      return { ...spec, title: to(spec.title), cells: spec.cells.map((row) => row.map(to)) };
    case "symbol":
      return { ...spec, words: spec.words.map(to) };
    default:
      return spec;
  }
}

/** Words with every place of some others replaced; capitals count only where that is wanted. */
export function replacedIn(words: string, wanted: string, by: string, capitals: boolean): string {
  const pattern = wanted.replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
  return words.replace(new RegExp(pattern, capitals ? "g" : "gi"), () => by);
}
