/** What is being annotated on the board just now, and how. */
import { create } from "zustand";
import type { AnnotationSpec, DimensionSpec, NoteSpec } from "../api/client";
import type { Point } from "../canvas/geometry";
import type { Snap } from "../canvas/snapPoints";

export type Tool = AnnotationSpec["kind"];

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
}

interface Options {
  /** Whether a piece belongs to its view, and so to every viewport of that, or to the sheet. */
  home: "sheet" | "view";
  measures: DimensionSpec["measures"] | "pointer";
  style: DimensionSpec["style"];
  leader: NoteSpec["leader"];
}

export const NO_POINTS = {
  viewport: null,
  points: [],
  hover: null,
  pointer: null,
  extending: null,
  attaching: null,
} as const;
export const NOT_ANNOTATING: Gesture = { ...NO_POINTS, tool: null };

export const useAnnotating = create<Gesture & Options>()(() => ({
  ...NOT_ANNOTATING,
  home: "sheet",
  measures: "pointer",
  style: "millimetres",
  leader: "arrow",
}));

/** Take a tool up, or put it away again. */
export const annotate = (tool: Tool | null) => useAnnotating.setState({ ...NO_POINTS, tool });
