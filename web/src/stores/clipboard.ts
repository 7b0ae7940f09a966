/** What was copied, to be pasted on this sheet or another. */
import { create } from "zustand";
import type { Viewport } from "../api/client";

export const useClipboard = create<{ viewports: readonly Viewport[] }>()(() => ({ viewports: [] }));
