/** What is being dragged or drawn on the board just now. */
import { create } from "zustand";
import type { View } from "../api/client";
import type { Geometry, Point } from "../canvas/geometry";
import type { Alignment } from "../canvas/snapping";

interface Gesture {
  /** The viewports that are dragged, and where they are just now. */
  draft: ReadonlyMap<string, Geometry> | null;
  /** Why what is dragged lies where it does. */
  alignments: readonly Alignment[];
  /** The cards that are dragged, and where on the screen. */
  cards: { views: View[]; x: number; y: number } | null;
  /** An outline that is being drawn on the sheet, and for which viewport; paper mm. */
  outline: { of: string | null; points: readonly Point[] } | null;
}

export const NO_GESTURE: Gesture = { draft: null, alignments: [], cards: null, outline: null };

export const useGesture = create<Gesture>()(() => NO_GESTURE);
