/** What is shown on the board of what others say. */
import { create } from "zustand";
import type { Point } from "../canvas/geometry";

/** A scan that is being laid by three points: those that were given, and the first of a pair. */
interface Laying {
  scan: string;
  /** Columns and rows of the scan, and where they belong, paper mm. */
  pairs: readonly (readonly [pixel: Point, place: Point])[];
  pixel: Point | null;
}

interface Reviewing {
  shown: boolean;
  /** The comment that is open, by its id. */
  comment: string | null;
  /** Scans that are hidden, by their ids. */
  hidden: ReadonlySet<string>;
  laying: Laying | null;
}

export const useReviewing = create<Reviewing>()(() => ({
  shown: true,
  comment: null,
  hidden: new Set(),
  laying: null,
}));
