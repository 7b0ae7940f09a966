/** What was copied last: viewports and annotation, as they were then. */
import { create } from "zustand";
import type { Annotation, Viewport } from "../api/client";

interface Clipboard {
  viewports: Viewport[];
  pieces: Annotation[];
}

export const useClipboard = create<Clipboard>()(() => ({ viewports: [], pieces: [] }));
