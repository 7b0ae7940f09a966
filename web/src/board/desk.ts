/** What only the screen knows: what is selected, what the hand holds, and what can be taken back. */
import { create } from "zustand";
import type { View, Viewport } from "../api/client";
import type { Step } from "../api/rows";
import type { Geometry, Look, Point } from "./geometry";

/** Something that was done: what to call it, and the rows it changed. Being plain data, it outlasts a reload. */
export interface Deed {
  what: string;
  steps: Step[];
}

interface Desk {
  /** The project on the desk: what was done belongs to it. */
  project: string;
  look: Look | null;
  /** Ids of the viewports that are selected, the last one last. */
  selected: readonly string[];
  reachedIn: boolean;
  /** The viewports in the hand, and where they are just now. */
  draft: ReadonlyMap<string, Geometry> | null;
  /** The lines that say why something in the hand lies where it does; paper mm. */
  agreement: readonly { from: Point; to: Point; says: string }[];
  /** The cards in the hand, and where on the screen. */
  carried: { views: View[]; x: number; y: number } | null;
  /** An outline that is being drawn on the sheet, and for which viewport; paper mm. */
  outline: { of: string | null; points: readonly Point[] } | null;
  /** What was copied, to be pasted on this sheet or another. */
  copied: readonly Viewport[];
  /** The template that is being edited on the sheet, by its id. Its parts are selected by `partName`. */
  template: string | null;
  /** Whether drawings are in working colours on the board, and not as they are plotted. */
  working: boolean;
  /** What the board shows of its sheet: x, y, width and height, paper mm. */
  seen: readonly [number, number, number, number] | null;
  rackOpen: boolean;
  helpOpen: boolean;
  message: { text: string; bad: boolean } | null;
  /** How many changes wait for a connection that was lost. */
  unsaved: number;
  past: Deed[];
  future: Deed[];
  select: (ids: readonly string[] | string | null, reachIn?: boolean) => void;
  say: (text: string, bad?: boolean) => void;
  done: (deed: Deed) => void;
  /** A deed that the server refused is none that could be taken back. */
  undone: (deed: Deed) => void;
}

/** How many deeds can be taken back. */
const KEPT = 200;

export const useDesk = create<Desk>()((set) => ({
  project: "",
  look: null,
  selected: [],
  reachedIn: false,
  draft: null,
  agreement: [],
  carried: null,
  outline: null,
  copied: [],
  template: null,
  working: false,
  seen: null,
  rackOpen: false,
  helpOpen: false,
  message: null,
  unsaved: 0,
  past: [],
  future: [],
  select: (ids, reachIn = false) => {
    const selected = typeof ids === "string" ? [ids] : (ids ?? []);
    set({ selected, reachedIn: selected.length === 1 && reachIn });
  },
  say: (text, bad = false) => set({ message: { text, bad } }),
  done: (deed) => set((s) => ({ past: [...s.past, deed].slice(-KEPT), future: [] })),
  undone: (deed) => set((s) => ({ past: s.past.filter((d) => d !== deed), future: s.future.filter((d) => d !== deed) })),
}));

const keptAs = (project: string) => `dunefold.deeds.${project}`;

useDesk.subscribe((now, before) => {
  if (!now.project || now.project !== before.project || (now.past === before.past && now.future === before.future)) return;
  try {
    sessionStorage.setItem(keptAs(now.project), JSON.stringify({ past: now.past, future: now.future }));
  } catch {
    // More than the browser keeps: it can still be taken back until the page is left.
    sessionStorage.removeItem(keptAs(now.project));
  }
});

/** What the so-manieth part of a template is selected by. */
export const partName = (number: number) => `part ${number}`;
export const partNumber = (name: string) => (name.startsWith("part ") ? Number(name.slice(5)) : -1);

const NOTHING_HELD = { template: null, selected: [], reachedIn: false, draft: null, agreement: [], carried: null, outline: null };

/** A project comes to the desk, with what was done to it before in this window. */
export function openDesk(project: string) {
  const kept = JSON.parse(sessionStorage.getItem(keptAs(project)) ?? "{}") as Partial<Pick<Desk, "past" | "future">>;
  useDesk.setState({ ...NOTHING_HELD, project, past: kept.past ?? [], future: kept.future ?? [] });
}

/** Nothing in the hand, nothing selected, nothing to take back: for a new session. */
export function clearDesk() {
  useDesk.setState({ ...NOTHING_HELD, project: "", copied: [], past: [], future: [] });
  sessionStorage.clear();
}
