/** The plot settings that there are, which sheets have them, and the lists of sheets that are kept. */
import type { Project, Sheet, SheetList } from "../../api/client";
import { commit } from "../../sync/commands";
import { type Known } from "../../sync/namedRows";
import { changing, deleting, making, newId, rows } from "../../sync/rows";
import { t } from "../../words/words";

export type Settings = Known<"plot_settings">;

/** Give settings to sheets. */
export const applyTo = (project: Project, settings: Settings, sheets: readonly Sheet[]) =>
  commit(
    project.id,
    t("plot {which} with “{name}”", {
      which: sheets.length === 1 ? sheets[0]?.number : t("{count} sheets", { count: sheets.length }),
      name: settings.name,
    }),
    sheets
      .filter((s) => s.plot_settings !== settings.key)
      .map((s) => changing("sheets", s, { plot_settings: settings.key })),
  );

export const usersOf = (project: Project, key: string) =>
  rows("sheets", project.id).filter((s) => s.plot_settings === key);

export function saveList(project: Project, name: string, sheets: readonly string[]): string {
  const made = making("sheet_lists", { id: newId(), project: project.id, name, sheets: [...sheets] });
  void commit(project.id, t("save the list “{name}”", { name }), [made]);
  return made.id;
}

export const removeList = (list: SheetList) =>
  commit(list.project, t("delete the list “{name}”", { name: list.name }), [deleting("sheet_lists", list)]);
