/** What of a drawing is being touched up on the board just now. */
import { create } from "zustand";
import type { TouchUpChoice } from "../api/client";
import type { Point } from "../canvas/geometry";
import type { Picked } from "../canvas/picking";

/** What clicks choose: lines and cuts, a part of a line between two clicks, or a line to be extended. */
export type Mode = "lines" | "part" | "extend";

/** What is chosen, as it will be remembered, and where it is now in u and v. */
export interface Chosen {
  choice: TouchUpChoice;
  lines: readonly (readonly Point[])[];
  /** What was clicked for it. */
  picked: Picked;
}

interface Touching {
  /** The viewport that is touched up; null for none. */
  viewport: string | null;
  mode: Mode;
  chosen: readonly Chosen[];
  hover: Picked | null;
  /** The first of two clicks: a place on a line, or the line that is to be extended. */
  begun: { at: Point; picked: Picked | null } | null;
  /** Whether what is done holds in all viewports of the view, and not in this one alone. */
  inAll: boolean;
  /** Whether what has been touched up is shown. */
  shown: boolean;
}

const NOTHING_CHOSEN = { chosen: [], hover: null, begun: null } as const;

export const useTouching = create<Touching>()(() => ({
  ...NOTHING_CHOSEN,
  viewport: null,
  mode: "lines",
  inAll: true,
  shown: true,
}));

/** Begin to touch up what is seen through a viewport, or end it. */
export const touchUp = (viewport: string | null) =>
  useTouching.setState({ ...NOTHING_CHOSEN, viewport, mode: "lines" });
export const chooseNothing = () => useTouching.setState(NOTHING_CHOSEN);
/** Have clicks choose something else. */
export const touchBy = (mode: Mode) => useTouching.setState({ ...NOTHING_CHOSEN, mode });
