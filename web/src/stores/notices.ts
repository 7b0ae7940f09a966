/** What the application tells of itself. */
import { create } from "zustand";

interface Notices {
  message: { text: string; bad: boolean } | null;
  /** How many changes wait to be saved, and why the server refuses them; blank where it cannot be reached. */
  unsaved: { count: number; refused: string } | null;
}

export const useNotices = create<Notices>()(() => ({ message: null, unsaved: null }));

export const notify = (text: string, bad = false) => useNotices.setState({ message: { text, bad } });

/** Tell what went wrong. */
export const notifyError = (error: unknown) =>
  notify(error instanceof Error ? error.message : String(error), true);
