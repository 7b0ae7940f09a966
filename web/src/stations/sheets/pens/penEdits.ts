/** Changes to pen tables; each can be taken back. */
import type { PenSpec, PenStock, PenTable, Project } from "../../../api/client";
import { commit } from "../../../api/deeds";
import { changing, deleting, making, newId, rows } from "../../../api/rows";

/** A pen table as it is chosen: a shipped one, or one of the project's own. */
export interface Known {
  key: string;
  name: string;
  spec: PenSpec;
  own: PenTable | null;
}

export function knownTables(stock: PenStock | undefined, own: readonly PenTable[]): Known[] {
  const shipped = (stock?.tables ?? []).map(({ key, name, spec }) => ({ key, name, spec: spec as PenSpec, own: null }));
  return [...shipped, ...own.map((table) => ({ key: table.id, name: table.name, spec: table.spec, own: table }))];
}

/** A copy of a table as one of the project's own. Its id. */
export function duplicate(project: Project, table: Known): string {
  const made = making("pen_tables", { id: newId(), project: project.id, name: table.own ? `${table.name}, copy` : `${table.name}, our own`, spec: table.spec });
  void commit(project.id, `duplicate the pen table “${table.name}”`, [made]);
  return made.id;
}

export const write = (table: PenTable, spec: Partial<PenSpec>, what: string) =>
  commit(table.project, what, [changing("pen_tables", table, { spec: { ...table.spec, ...spec } })]);

export const rename = (table: PenTable, name: string) => commit(table.project, `rename the pen table “${table.name}”`, [changing("pen_tables", table, { name })]);

export const remove = (table: PenTable) => commit(table.project, `delete the pen table “${table.name}”`, [deleting("pen_tables", table)]);

/** Where a table is drawn with, in words. */
export function usersOf(project: Project, key: string): string[] {
  const sheets = rows("sheets", project.id);
  const inside = rows("viewports", project.id).filter((v) => v.pen_table === key);
  return [
    ...(project.pen_table === key ? ["the project"] : []),
    ...sheets.filter((s) => s.pen_table === key).map((s) => s.number),
    ...new Set(inside.map((v) => `a viewport on ${sheets.find((s) => s.id === v.sheet)?.number ?? "a sheet"}`)),
  ];
}
