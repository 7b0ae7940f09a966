/** Changes to sheets and their order: shown at once, written in order, and able to be undone. */
import { api, data, type Sheet } from "../../api/client";
import { notify, notifyError } from "../../stores/notices";
import { commit } from "../../sync/commands";
import { afterWrites, changing, deleting, making, newId, rows, type Step } from "../../sync/rows";
import { t } from "../../words/words";
import { contentsOf, copyOfPiece } from "./contents";

type SheetChange = Partial<Omit<Sheet, "id" | "project" | "version" | "free_area" | "unprintable">>;
/** What a new sheet has of the one that it is like, beside its paper. */
const LIKE = (like: Sheet | undefined) => ({
  // Where there is none to be like, the server chooses.
  ...(like && { template: like.template, plot_settings: like.plot_settings, pen_table: like.pen_table }),
  discipline: like?.discipline ?? "A",
  sheet_type: like?.sheet_type ?? "",
  creator: like?.creator ?? "",
  revisions: [],
  overrides: {},
});

/** All that can be done to the sheets of a project. */
export function registerEdits(project: string) {
  const { inOrder, onPaperOf, copiesOf, deletingAll } = contentsOf(project);
  const changeSheet = (sheet: Sheet, to: SheetChange, what: string) =>
    commit(project, what, [changing("sheets", sheet, to)]);

  const changeSheets = (sheets: readonly Sheet[], to: SheetChange) =>
    commit(
      project,
      t("change {count} sheets", { count: sheets.length }),
      sheets.map((sheet) => changing("sheets", sheet, to)),
    );

  const register = () => rows("sheets", project).toSorted((a, b) => a.position - b.position);
  const renumbered = (order: readonly { id: string }[]): Step[] => {
    const there = new Map(register().map((s) => [s.id, s]));
    return order.flatMap(({ id }, position) => {
      const sheet = there.get(id);
      return sheet && sheet.position !== position ? [changing("sheets", sheet, { position })] : [];
    });
  };

  /** New sheets like another, one for each title, at the end of the register. The first one's id. */
  function addSheets(titles: readonly string[], like?: Sheet): string | undefined {
    const first = Math.max(-1, ...register().map((s) => s.position)) + 1;
    const steps = titles.map((title, k) =>
      making("sheets", {
        id: newId(),
        project,
        title,
        position: first + k,
        paper: like?.paper ?? "A3",
        orientation: like?.orientation ?? "landscape",
        free_area: like?.free_area ?? [],
        drawing_list: null,
        guides: {},
        ...LIKE(like),
      }),
    );
    void commit(
      project,
      titles.length === 1 ? t("add a sheet") : t("add {count} sheets", { count: titles.length }),
      steps,
    );
    return steps[0]?.id;
  }

  /** A copy of a sheet behind it, with its viewports or without. */
  function duplicateSheet(sheet: Sheet, contents: boolean): string {
    const { version: _v, number: _n, drawing_list: _l, ...row } = sheet;
    const made = making("sheets", { ...row, id: newId(), position: sheet.position + 1 });
    const copies = contents
      ? [
          ...inOrder(sheet.id).flatMap((v) => copiesOf(v, { sheet: made.id, position: v.position })),
          ...onPaperOf(sheet.id).map((p) => copyOfPiece(p, { sheet: made.id })),
        ]
      : [];
    const order = register().flatMap((s) => (s.id === sheet.id ? [s, made] : [s]));
    const moved = renumbered(order);
    void commit(project, t("duplicate {number}", { number: sheet.number }), [
      { ...made, after: { ...made.after, position: order.indexOf(made) } },
      ...copies,
      ...moved,
    ]);
    return made.id;
  }

  /** The numbers after a sheet's go on from its own, as the project's pattern has it. */
  async function renumberFrom(sheet: Sheet) {
    try {
      const numbers = await afterWrites(() =>
        data(api.GET("/api/sheets/{id}/numbers/", { params: { path: { id: sheet.id } } })),
      );
      const steps = numbers.flatMap(({ sheet: id, number }) => {
        const row = register().find((s) => s.id === id);
        return row && row.number !== number ? [changing("sheets", row, { number })] : [];
      });
      if (!steps.length)
        notify(t("The sheets after {number} already follow from it.", { number: sheet.number }));
      await commit(project, t("renumber from {number}", { number: sheet.number }), steps);
    } catch (error) {
      notifyError(error);
    }
  }

  const deletingSheet = (sheet: Sheet) => [
    ...deletingAll(inOrder(sheet.id)),
    ...onPaperOf(sheet.id).map((p) => deleting("annotations", p)),
    deleting("sheets", sheet),
  ];
  const deleteSheet = (sheet: Sheet) =>
    commit(project, t("delete sheet {number}", { number: sheet.number }), deletingSheet(sheet));
  const deleteSheets = (sheets: readonly Sheet[]) =>
    commit(project, t("delete {count} sheets", { count: sheets.length }), sheets.flatMap(deletingSheet));

  /** Put a sheet where another stands in the register. */
  function moveSheet(sheet: Sheet, to: number) {
    const order = register().filter((s) => s.id !== sheet.id);
    order.splice(to, 0, sheet);
    return commit(project, t("move {number} in the register", { number: sheet.number }), renumbered(order));
  }

  return {
    changeSheet,
    changeSheets,
    addSheets,
    duplicateSheet,
    deleteSheet,
    deleteSheets,
    moveSheet,
    renumberFrom,
  };
}
