/** The plot settings that there are, which sheets have them, and the lists of sheets that are kept. */
import type { PlotSettings, PlotStock, Project, Sheet, SheetList } from "../../api/client";
import { commit } from "../../api/deeds";
import { knownOf, type Known } from "../../api/named";
import { changing, deleting, making, newId, rows } from "../../api/rows";

export type Settings = Known<"plot_settings">;

export const knownSettings = (stock: PlotStock | undefined, own: readonly PlotSettings[]): Settings[] => knownOf<"plot_settings">(stock?.settings ?? [], own);

/** Give settings to sheets. */
export const giveTo = (project: Project, settings: Settings, sheets: readonly Sheet[]) =>
  commit(project.id, `plot ${sheets.length === 1 ? sheets[0]?.number : `${sheets.length} sheets`} with “${settings.name}”`, sheets.filter((s) => s.plot_settings !== settings.key).map((s) => changing("sheets", s, { plot_settings: settings.key })));

export const usersOf = (project: Project, key: string) => rows("sheets", project.id).filter((s) => s.plot_settings === key);

export function keepList(project: Project, name: string, sheets: readonly string[]): string {
  const made = making("sheet_lists", { id: newId(), project: project.id, name, sheets: [...sheets] });
  void commit(project.id, `keep the list “${name}”`, [made]);
  return made.id;
}

export const removeList = (list: SheetList) => commit(list.project, `delete the list “${list.name}”`, [deleting("sheet_lists", list)]);
