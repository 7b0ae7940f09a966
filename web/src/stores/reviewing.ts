/** What is shown on the board of what others say. */
import { create } from "zustand";

interface Reviewing {
  shown: boolean;
  /** The comment that is open, by its id. */
  comment: string | null;
}

export const useReviewing = create<Reviewing>()(() => ({ shown: true, comment: null }));
