/** Rows of a project that people change: shown at once, written in order, and put right when the server refuses. */
import { useDesk } from "../board/desk";
import { ApiError, type Sheet, type View, type Viewport } from "./client";
import { queryClient } from "./queries";
import { whileWriting } from "./writing";

interface Rows {
  sheets: Sheet;
  viewports: Viewport;
  views: View;
}
export type Kind = keyof Rows;

/** Writes go one after the other, so that each is made from the version that the one before has left. */
let tail: Promise<unknown> = Promise.resolve();
export function inOrder<T>(write: () => Promise<T>): Promise<T> {
  const result = whileWriting(() => tail.then(write));
  tail = result.catch(() => undefined);
  return result;
}

export function rows<K extends Kind>(kind: K, project: string): Rows[K][] {
  return queryClient.getQueryData<Rows[K][]>([kind, project]) ?? [];
}
export function setRows<K extends Kind>(kind: K, project: string, change: (rows: Rows[K][]) => Rows[K][]) {
  queryClient.setQueryData<Rows[K][]>([kind, project], (old) => change(old ?? []));
}
export function put<K extends Kind>(kind: K, project: string, row: Rows[K]) {
  setRows(kind, project, (old) => (old.some((r) => r.id === row.id) ? old.map((r) => (r.id === row.id ? row : r)) : [...old, row]));
}
export const drop = (kind: Kind, project: string, id: string) =>
  setRows(kind, project, (old) => (old as { id?: string }[]).filter((r) => r.id !== id) as never[]);

/** What else hangs on the rows: display lists, and where views are placed. */
export function refresh(project: string) {
  for (const key of [["display"], ["views", project]]) void queryClient.invalidateQueries({ queryKey: key });
}

/** Tell what went wrong, show what the server has, and pass it on. */
export function refused(kind: Kind, project: string, error: unknown): never {
  useDesk.getState().say(error instanceof Error ? error.message : String(error), true);
  if (error instanceof ApiError && error.status === 409 && error.current) put(kind, project, error.current as never);
  else void queryClient.invalidateQueries({ queryKey: [kind, project] });
  throw error;
}

export const newId = () => crypto.randomUUID();
export const at = (id: string) => ({ params: { path: { id } } });
