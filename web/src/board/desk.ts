/** What only the screen knows: what is selected, what the hand holds, and what can be taken back. */
import { create } from "zustand";
import type { View } from "../api/client";
import type { Geometry, Look } from "./geometry";

export interface Deed {
  what: string;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
}

interface Desk {
  look: Look | null;
  selected: string | null;
  reachedIn: boolean;
  /** The viewport in the hand, and where it is just now. */
  draft: { id: string; geometry: Geometry } | null;
  /** The card in the hand, and where on the screen. */
  carried: { view: View; x: number; y: number } | null;
  rackOpen: boolean;
  helpOpen: boolean;
  message: { text: string; bad: boolean } | null;
  past: Deed[];
  future: Deed[];
  select: (id: string | null, reachIn?: boolean) => void;
  say: (text: string, bad?: boolean) => void;
  done: (deed: Deed) => void;
}

/** How many deeds can be taken back. */
const KEPT = 200;

export const useDesk = create<Desk>()((set) => ({
  look: null,
  selected: null,
  reachedIn: false,
  draft: null,
  carried: null,
  rackOpen: false,
  helpOpen: false,
  message: null,
  past: [],
  future: [],
  select: (selected, reachIn = false) => set({ selected, reachedIn: Boolean(selected) && reachIn }),
  say: (text, bad = false) => set({ message: { text, bad } }),
  done: (deed) => set((s) => ({ past: [...s.past, deed].slice(-KEPT), future: [] })),
}));

/** Take back the last deed, or do it again. One that cannot be done stays where it is. */
export async function step(way: "undo" | "redo") {
  const { past, future, say } = useDesk.getState();
  const deed = (way === "undo" ? past : future).at(-1);
  if (!deed) return;
  useDesk.setState(
    way === "undo"
      ? { past: past.slice(0, -1), future: [...future, deed] }
      : { past: [...past, deed], future: future.slice(0, -1) },
  );
  try {
    await deed[way]();
    say(`${way === "undo" ? "Taken back" : "Done again"}: ${deed.what}`);
  } catch (error) {
    useDesk.setState({ past, future });
    say(error instanceof Error ? error.message : String(error), true);
  }
}

/** Nothing in the hand, nothing selected, nothing to take back: for another project, or a new session. */
export const clearDesk = () =>
  useDesk.setState({ selected: null, reachedIn: false, draft: null, carried: null, past: [], future: [] });
