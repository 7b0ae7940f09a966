/** What was copied last: viewports and annotation, as they were then. */
import { create } from "zustand";
import type { Annotation, Viewport } from "../api/client";

interface Clipboard {
  viewports: Viewport[];
  pieces: Annotation[];
  /** The look of a piece that was copied, to be given to others. */
  look: Readonly<Record<string, unknown>> | null;
}

export const useClipboard = create<Clipboard>()(() => ({ viewports: [], pieces: [], look: null }));
