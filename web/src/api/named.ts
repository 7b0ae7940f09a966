/** Rows that a project keeps by name beside those that ship: pen tables and plot settings. Each change can be taken back. */
import type { PenTable, PlotSettings } from "./client";
import { commit } from "./deeds";
import { changing, deleting, making, newId } from "./rows";

interface Named {
  pen_tables: PenTable;
  plot_settings: PlotSettings;
}
type Kind = keyof Named;
type Spec<K extends Kind> = Named[K]["spec"];
const WORDS = { pen_tables: "the pen table", plot_settings: "the plot settings" };

/** One as it is chosen: one that ships, or one of the project's own. */
export interface Known<K extends Kind> {
  key: string;
  name: string;
  spec: Spec<K>;
  own: Named[K] | null;
}

export function knownOf<K extends Kind>(shipped: readonly { key: string; name: string; spec: unknown }[], own: readonly Named[K][]): Known<K>[] {
  return [...shipped.map(({ key, name, spec }) => ({ key, name, spec: spec as Spec<K>, own: null })), ...own.map((row) => ({ key: row.id, name: row.name, spec: row.spec, own: row }))];
}

/** A copy as one of the project's own. Its id. */
export function duplicate<K extends Kind>(kind: K, project: string, of: Known<K>): string {
  const row = { id: newId(), project, name: of.own ? `${of.name}, copy` : `${of.name}, our own`, spec: of.spec };
  void commit(project, `duplicate ${WORDS[kind]} “${of.name}”`, [making(kind, row as never)]);
  return row.id;
}

export const write = <K extends Kind>(kind: K, row: Named[K], spec: Partial<Spec<K>>, what: string) =>
  commit(row.project, `${what} of “${row.name}”`, [changing(kind, row as never, { spec: { ...row.spec, ...spec } } as never)]);

export const rename = <K extends Kind>(kind: K, row: Named[K], name: string) => commit(row.project, `rename ${WORDS[kind]} “${row.name}”`, [changing(kind, row as never, { name } as never)]);

export const remove = <K extends Kind>(kind: K, row: Named[K]) => commit(row.project, `delete ${WORDS[kind]} “${row.name}”`, [deleting(kind, row as never)]);
