/**
 * Rows that a project keeps by name beside those that are built in: pen tables and plot settings. Each change
 * can be undone.
 */
import type { PenTable, PlotSettings } from "../api/client";
import { commit } from "./commands";
import { changing, deleting, making, newId } from "./rows";
import { t } from "../words/words";

interface Named {
  pen_tables: PenTable;
  plot_settings: PlotSettings;
}
type Kind = keyof Named;
type Spec<K extends Kind> = Named[K]["spec"];
const WORDS = { pen_tables: t("the pen table"), plot_settings: t("the plot settings") };

/** One as it is chosen: one that is built in, or one of the project's own. */
export interface Known<K extends Kind> {
  key: string;
  name: string;
  spec: Spec<K>;
  own: Named[K] | null;
}

export const knownOf = <K extends Kind>(listed: readonly Named[K][]): Known<K>[] =>
  listed.map((row) => ({ key: row.id, name: row.name, spec: row.spec, own: row.built_in ? null : row }));

/** A copy as one of the project's own. Its id. */
export function duplicate<K extends Kind>(kind: K, project: string, of: Known<K>): string {
  const row = { id: newId(), project, name: t("{name}, copy", { name: of.name }), spec: of.spec };
  void commit(project, t("duplicate {kind} “{name}”", { kind: WORDS[kind], name: of.name }), [
    making(kind, row as never),
  ]);
  return row.id;
}

export const write = <K extends Kind>(kind: K, row: Named[K], spec: Partial<Spec<K>>, what: string) =>
  commit(row.project ?? "", t("{what} of “{name}”", { what, name: row.name }), [
    changing(kind, row as never, { spec: { ...row.spec, ...spec } } as never),
  ]);

export const rename = <K extends Kind>(kind: K, row: Named[K], name: string) =>
  commit(row.project ?? "", t("rename {kind} “{name}”", { kind: WORDS[kind], name: row.name }), [
    changing(kind, row as never, { name } as never),
  ]);

export const remove = <K extends Kind>(kind: K, row: Named[K]) =>
  commit(row.project ?? "", t("delete {kind} “{name}”", { kind: WORDS[kind], name: row.name }), [
    deleting(kind, row as never),
  ]);
