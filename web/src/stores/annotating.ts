/** What is being annotated on the board just now, and how. */
import { create } from "zustand";
import type {
  AnnotationSpec,
  DimensionSpec,
  MeasureSpec,
  NoteSpec,
  NumberedNoteSpec,
  ShapeSpec,
  TagSpec,
} from "../api/client";
import type { Point } from "../canvas/geometry";
import type { Snap } from "../canvas/snapPoints";
import { t } from "../words/words";

export type Tool = AnnotationSpec["kind"];

/** What is done to pieces, or to a viewport, that are chosen, and for which points are clicked. */
export interface PointsFor {
  what: "mirror" | "break" | "trim" | "array" | "line up" | "leader";
  /** Their ids. */
  of: readonly string[];
}

interface Gesture {
  tool: Tool | null;
  /** The viewport that the points are seen through; null for the bare sheet, or before there is one. */
  viewport: string | null;
  /** What was clicked: u and v of the viewport; paper mm on the bare sheet. */
  points: readonly Snap[];
  /** What the pointer would attach to, and through which viewport. */
  hover: { snap: Snap; viewport: string | null } | null;
  /** Where the pointer is, paper mm. */
  pointer: Point | null;
  /** The dimension that was made last, to which further clicks add. */
  extending: string | null;
  /** The piece whose points are chosen anew. */
  attaching: string | null;
  /** What the points are for, where they make no piece. */
  pointsFor: PointsFor | null;
}

interface Options {
  /** Whether a piece belongs to its view, and so to every viewport of that, or to the sheet. */
  home: "sheet" | "view";
  measures: DimensionSpec["measures"] | "pointer" | "along";
  arrangement: DimensionSpec["arrangement"];
  style: DimensionSpec["style"];
  /** The named style of dimensions and of notes; blank for none. */
  dimensionStyle: string;
  textStyle: string;
  leader: NoteSpec["leader"];
  measure: MeasureSpec["of"];
  shape: Pick<ShapeSpec, "form" | "width" | "colour" | "pattern" | "fill" | "hatch">;
  /** Which note of the list, symbol, picture is placed; blank before one is chosen. */
  note: string;
  mark: NumberedNoteSpec["mark"];
  symbol: string;
  picture: string;
  tag: Pick<TagSpec, "shows" | "source">;
}

export const NO_POINTS = {
  viewport: null,
  points: [],
  hover: null,
  pointer: null,
  extending: null,
  attaching: null,
  pointsFor: null,
} as const;
export const NOT_ANNOTATING: Gesture = { ...NO_POINTS, tool: null };

export const useAnnotating = create<Gesture & Options>()(() => ({
  ...NOT_ANNOTATING,
  home: "sheet",
  measures: "pointer",
  arrangement: "chain",
  style: "millimetres",
  dimensionStyle: "",
  textStyle: "",
  leader: "arrow",
  measure: "angle",
  shape: { form: "line", width: 0.25, colour: "#1b1f24", pattern: "solid", fill: "", hatch: "" },
  note: "",
  mark: "circle",
  symbol: "",
  picture: "",
  tag: { shows: "number", source: t("Name") },
}));

/** Take a tool up, or put it away again. */
export const annotate = (tool: Tool | null) => useAnnotating.setState({ ...NO_POINTS, tool });
