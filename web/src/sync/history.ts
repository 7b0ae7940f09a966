/** What can be undone and redone: commands of one project, kept for as long as its window is open. */
import { create } from "zustand";
import type { Step } from "./rows";

/**
 * Something that was done: what to call it, and the rows it changed. Being plain data, it outlasts a reload.
 */
export interface Command {
  what: string;
  steps: Step[];
}

interface History {
  project: string;
  past: Command[];
  future: Command[];
}

/** How many commands can be undone. */
const MAX_PAST = 200;

export const useHistory = create<History>()(() => ({ project: "", past: [], future: [] }));

export const record = (command: Command) =>
  useHistory.setState((s) => ({ past: [...s.past, command].slice(-MAX_PAST), future: [] }));

/** A command that the server refused is none that could be undone. */
export const discard = (command: Command) =>
  useHistory.setState((s) => ({
    past: s.past.filter((c) => c !== command),
    future: s.future.filter((c) => c !== command),
  }));

const keyOf = (project: string) => `dunefold.commands.${project}`;

useHistory.subscribe((now, before) => {
  if (
    !now.project ||
    now.project !== before.project ||
    (now.past === before.past && now.future === before.future)
  )
    return;
  try {
    sessionStorage.setItem(keyOf(now.project), JSON.stringify({ past: now.past, future: now.future }));
  } catch {
    // More than the browser keeps: it can still be undone until the page is left.
    sessionStorage.removeItem(keyOf(now.project));
  }
});

/** Go on with what was done to a project before in this window. */
export function openHistory(project: string) {
  const kept = JSON.parse(sessionStorage.getItem(keyOf(project)) ?? "{}") as Partial<
    Pick<History, "past" | "future">
  >;
  useHistory.setState({ project, past: kept.past ?? [], future: kept.future ?? [] });
}

/** Forget everything: for a new session. */
export function clearHistory() {
  useHistory.setState({ project: "", past: [], future: [] });
  sessionStorage.clear();
}
