/** What the application tells of itself. */
import { create } from "zustand";

interface Notices {
  message: { text: string; bad: boolean } | null;
  /** How many changes wait for a connection that was lost. */
  unsaved: number;
}

export const useNotices = create<Notices>()(() => ({ message: null, unsaved: 0 }));

export const notify = (text: string, bad = false) => useNotices.setState({ message: { text, bad } });

/** Tell what went wrong. */
export const notifyError = (error: unknown) =>
  notify(error instanceof Error ? error.message : String(error), true);
