/** What the application tells of itself. */
import { create } from "zustand";
import { said } from "../words/said";

/** What can be done about a message. */
interface Action {
  label: string;
  run: () => void;
}

interface Notices {
  message: { text: string; bad: boolean; action?: Action | undefined } | null;
  /** Whether a change has been on its way for so long that it is to be said. */
  saving: boolean;
  /** How many changes wait to be saved, and why the server refuses them; blank where it cannot be reached. */
  unsaved: { count: number; refused: string } | null;
}

export const useNotices = create<Notices>()(() => ({ message: null, saving: false, unsaved: null }));

export const notify = (text: string, bad = false, action?: Action) =>
  useNotices.setState({ message: { text, bad, action } });

/** Tell what went wrong. */
export const notifyError = (error: unknown) =>
  notify(said(error instanceof Error ? error.message : String(error)), true);
