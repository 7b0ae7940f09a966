/** The pen tables that there are, and where each is drawn with. */
import type { PenStock, PenTable, Project } from "../../../api/client";
import { knownOf } from "../../../api/named";
import { rows } from "../../../api/rows";

export const knownTables = (stock: PenStock | undefined, own: readonly PenTable[]) => knownOf<"pen_tables">(stock?.tables ?? [], own);

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
