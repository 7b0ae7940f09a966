/** Changes to plot settings and to lists of sheets; each can be taken back. */
import type { PlotSettings, PlotSpec, PlotStock, Project, Sheet, SheetList } from "../../api/client";
import { commit } from "../../api/deeds";
import { changing, deleting, making, newId, rows } from "../../api/rows";

/** Plot settings as they are chosen: those that ship, or the project's own. */
export interface Known {
  key: string;
  name: string;
  spec: PlotSpec;
  own: PlotSettings | null;
}

export function knownSettings(stock: PlotStock | undefined, own: readonly PlotSettings[]): Known[] {
  const shipped = (stock?.settings ?? []).map(({ key, name, spec }) => ({ key, name, spec: spec as PlotSpec, own: null }));
  return [...shipped, ...own.map((row) => ({ key: row.id, name: row.name, spec: row.spec, own: row }))];
}

/** A copy of settings as the project's own. Its id. */
export function duplicate(project: Project, settings: Known): string {
  const made = making("plot_settings", { id: newId(), project: project.id, name: settings.own ? `${settings.name}, copy` : `${settings.name}, our own`, spec: settings.spec });
  void commit(project.id, `duplicate the plot settings “${settings.name}”`, [made]);
  return made.id;
}

export const write = (settings: PlotSettings, spec: Partial<PlotSpec>, what: string) =>
  commit(settings.project, `${what} of “${settings.name}”`, [changing("plot_settings", settings, { spec: { ...settings.spec, ...spec } })]);

export const rename = (settings: PlotSettings, name: string) => commit(settings.project, `rename the plot settings “${settings.name}”`, [changing("plot_settings", settings, { name })]);

export const remove = (settings: PlotSettings) => commit(settings.project, `delete the plot settings “${settings.name}”`, [deleting("plot_settings", settings)]);

/** Give settings to sheets. */
export const giveTo = (project: Project, settings: Known, sheets: readonly Sheet[]) =>
  commit(project.id, `plot ${sheets.length === 1 ? sheets[0]?.number : `${sheets.length} sheets`} with “${settings.name}”`, sheets.filter((s) => s.plot_settings !== settings.key).map((s) => changing("sheets", s, { plot_settings: settings.key })));

export const usersOf = (project: Project, key: string) => rows("sheets", project.id).filter((s) => s.plot_settings === key);

export function keepList(project: Project, name: string, sheets: readonly string[]): string {
  const made = making("sheet_lists", { id: newId(), project: project.id, name, sheets: [...sheets] });
  void commit(project.id, `keep the list “${name}”`, [made]);
  return made.id;
}

export const removeList = (list: SheetList) => commit(list.project, `delete the list “${list.name}”`, [deleting("sheet_lists", list)]);
