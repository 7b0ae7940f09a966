/** What is selected on the board. */
import { create } from "zustand";

interface Selection {
  /** Ids of the viewports that are selected, or names of a template's parts; the last one last. */
  selected: readonly string[];
  /** Whether it is the contents of the one selected viewport that move. */
  movingContents: boolean;
  select: (ids: readonly string[] | string | null, movingContents?: boolean) => void;
}

export const useSelection = create<Selection>()((set) => ({
  selected: [],
  movingContents: false,
  select: (ids, movingContents = false) => {
    const selected = typeof ids === "string" ? [ids] : (ids ?? []);
    set({ selected, movingContents: selected.length === 1 && movingContents });
  },
}));

export const select = (...args: Parameters<Selection["select"]>) => useSelection.getState().select(...args);
