/** The plot settings that there are, which sheets have them, and the lists of sheets that are kept. */
import type { Project, Sheet, SheetList } from "../../api/client";
import { commit } from "../../sync/commands";
import { type Known } from "../../sync/namedRows";
import { changing, deleting, making, newId, rows } from "../../sync/rows";

export type Settings = Known<"plot_settings">;

/** Give settings to sheets. */
export const applyTo = (project: Project, settings: Settings, sheets: readonly Sheet[]) =>
  commit(
    project.id,
    `plot ${sheets.length === 1 ? sheets[0]?.number : `${sheets.length} sheets`} with “${settings.name}”`,
    sheets
      .filter((s) => s.plot_settings !== settings.key)
      .map((s) => changing("sheets", s, { plot_settings: settings.key })),
  );

export const usersOf = (project: Project, key: string) =>
  rows("sheets", project.id).filter((s) => s.plot_settings === key);

export function saveList(project: Project, name: string, sheets: readonly string[]): string {
  const made = making("sheet_lists", { id: newId(), project: project.id, name, sheets: [...sheets] });
  void commit(project.id, `save the list “${name}”`, [made]);
  return made.id;
}

export const removeList = (list: SheetList) =>
  commit(list.project, `delete the list “${list.name}”`, [deleting("sheet_lists", list)]);
