/** Changes to sheets and viewports: shown at once, written in order, and able to be taken back. */
import { useMemo } from "react";
import { api, data, type Sheet, type View, type Viewport } from "../../api/client";
import { commit } from "../../api/deeds";
import { changing, decided, deleting, making, newId, put, refresh, rows, type Step } from "../../api/rows";
import { useDesk } from "../../board/desk";
import { geometryOf, type Geometry } from "../../board/geometry";

type SheetChange = Partial<Omit<Sheet, "id" | "project" | "version" | "free_area" | "unprintable">>;
/** A scale comes with its ratio, so that the board can show it before the server has answered. */
export type ViewportChange = Partial<Omit<Viewport, "id" | "version">>;
export type Projection = "third-angle" | "first-angle";

/** What a new sheet has of the one that it is like, beside its paper. */
const LIKE = (like: Sheet | undefined) => ({
  template: like?.template ?? "block",
  discipline: like?.discipline ?? "A",
  sheet_type: like?.sheet_type ?? "",
  creator: like?.creator ?? "",
  revisions: [],
  typed: {},
});

/** What a copy of a viewport takes with it. */
const copyOf = ({ version: _, ...row }: Viewport, given: ViewportChange) => making("viewports", { ...row, ...given, id: newId(), pinned: false });

/** What changes of a viewport's row when it gets another geometry. */
function changeTo(before: Viewport, after: Geometry): ViewportChange {
  const old = geometryOf(before);
  const change: ViewportChange = Object.fromEntries(
    Object.entries(after).filter(([key, value]) => JSON.stringify(old[key as keyof Geometry]) !== JSON.stringify(value)),
  );
  if (change.ratio !== undefined) {
    const over = Number((1 / change.ratio).toFixed(4));
    Object.assign(change, { scale: `1:${over}`, ratio: 1 / over });
  }
  return change;
}

/** All that can be done to the sheets of a project. Each deed can be taken back. */
export function useEdits(project: string) {
  return useMemo(() => {
    const { done, say, select } = useDesk.getState();
    const told = (error: unknown) => say(error instanceof Error ? error.message : String(error), true);
    const on = (sheet: string) => rows("viewports", project).filter((v) => v.sheet === sheet);
    const inOrder = (sheet: string) => on(sheet).toSorted((a, b) => a.position - b.position);

    const change = (viewports: readonly Viewport[], to: ViewportChange | ((v: Viewport) => ViewportChange), what: string) =>
      commit(
        project,
        what,
        viewports.flatMap((v) => {
          const change = typeof to === "function" ? to(v) : to;
          return Object.keys(change).length ? [changing("viewports", v, change)] : [];
        }),
      );

    function reshape(changed: ReadonlyMap<string, Geometry>, what: string) {
      const there = rows("viewports", project).filter((v) => changed.has(v.id));
      return change(there, (v) => changeTo(v, changed.get(v.id) ?? geometryOf(v)), what);
    }

    const changeSheet = (sheet: Sheet, to: SheetChange, what: string) => commit(project, what, [changing("sheets", sheet, to)]);

    /** Rows that the server has placed: they stand on the sheet, and can be taken back in one step. */
    function placed(made: Viewport[], what: string) {
      for (const row of made) put("viewports", project, row);
      const steps = made.map((row) => making("viewports", row));
      refresh(project, steps);
      done({ what, steps });
      select(made.map((row) => row.id));
    }

    async function place(views: readonly View[], sheet: string, point?: readonly [number, number]) {
      const made: Viewport[] = [];
      try {
        for (const view of views) {
          const body = { id: newId(), view: view.id, sheet, at: point && [...point] };
          made.push(await decided(() => data(api.POST("/api/viewports/", { body }))));
        }
      } catch (error) {
        told(error);
      }
      if (made.length) placed(made, made.length === 1 ? "place a view" : `place ${made.length} views`);
    }

    async function arrange(views: readonly View[], sheet: string, projection: Projection) {
      try {
        const body = { views: views.map((v) => v.id), projection };
        const made = await decided(() => data(api.POST("/api/sheets/{id}/arrange/", { params: { path: { id: sheet } }, body })));
        placed(made, `lay out ${made.length} views`);
      } catch (error) {
        told(error);
      }
    }

    /** A view seen through an outline that was drawn on the sheet. */
    function placeIn(view: View, sheet: string, geometry: Geometry, scale: string) {
      const row = { ...geometry, id: newId(), sheet, view: view.id, scale, position: nextPosition(sheet), linework: view.linework, extents: view.extents, axes: view.axes, state: view.state, pinned: false, framed: false, opaque: false, marks: true, levels: true, grid: true, title_style: "plain" as const, title_by: [0, 0], moved_marks: {}, pens: {}, shown: {} };
      void commit(project, "place a view in an outline", [making("viewports", row)]);
      select(row.id);
    }

    const nextPosition = (sheet: string) => Math.max(-1, ...on(sheet).map((v) => v.position)) + 1;

    /** Copies of viewports on a sheet, moved by a distance; each stays linked to its view. */
    function copy(viewports: readonly Viewport[], sheet: string, by: number, what: string) {
      const first = nextPosition(sheet);
      const steps = viewports.map((v, k) => copyOf(v, { sheet, position: first + k, x: v.x + by, y: v.y - by }));
      void commit(project, what, steps);
      select(steps.map((s) => s.id));
    }

    function copyTo(viewports: readonly Viewport[], sheets: readonly string[]) {
      const steps = sheets.flatMap((sheet) => {
        const first = nextPosition(sheet);
        return viewports.map((v, k) => copyOf(v, { sheet, position: first + k }));
      });
      return commit(project, `place on ${sheets.length} ${sheets.length === 1 ? "sheet" : "sheets"}`, steps);
    }

    function remove(viewports: readonly Viewport[]) {
      select(null);
      const what = viewports.length === 1 ? "delete a viewport" : `delete ${viewports.length} viewports`;
      return commit(project, what, viewports.map((v) => deleting("viewports", v)));
    }

    /** Some viewports above, or below, all others of their sheet. */
    function stack(viewports: readonly Viewport[], front: boolean) {
      const [first] = viewports;
      if (!first) return;
      const ids = new Set(viewports.map((v) => v.id));
      const all = inOrder(first.sheet);
      const [chosen, others] = [all.filter((v) => ids.has(v.id)), all.filter((v) => !ids.has(v.id))];
      const order = front ? [...others, ...chosen] : [...chosen, ...others];
      const steps = order.flatMap((v, position) => (v.position === position ? [] : [changing("viewports", v, { position })]));
      void commit(project, front ? "bring to the front" : "put to the back", steps);
    }

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
        making("sheets", { id: newId(), project, title, position: first + k, paper: like?.paper ?? "A3", orientation: like?.orientation ?? "landscape", free_area: like?.free_area ?? [], plot_settings: like?.plot_settings ?? "file", pen_table: like?.pen_table ?? "", drawing_list: null, guides: {}, ...LIKE(like) }),
      );
      void commit(project, titles.length === 1 ? "add a sheet" : `add ${titles.length} sheets`, steps);
      return steps[0]?.id;
    }

    /** A copy of a sheet behind it, with its viewports or without. */
    function duplicateSheet(sheet: Sheet, contents: boolean): string {
      const { version: _v, number: _n, drawing_list: _l, ...row } = sheet;
      const made = making("sheets", { ...row, id: newId(), position: sheet.position + 1 });
      const copies = contents ? inOrder(sheet.id).map((v) => copyOf(v, { sheet: made.id, position: v.position })) : [];
      const order = register().flatMap((s) => (s.id === sheet.id ? [s, made] : [s]));
      const moved = renumbered(order);
      void commit(project, `duplicate ${sheet.number}`, [{ ...made, after: { ...made.after, position: order.indexOf(made) } }, ...copies, ...moved]);
      return made.id;
    }

    /** The numbers after a sheet's go on from its own, as the project's pattern has it. */
    async function renumberFrom(sheet: Sheet) {
      try {
        const numbers = await decided(() => data(api.GET("/api/sheets/{id}/numbers/", { params: { path: { id: sheet.id } } })));
        const steps = numbers.flatMap(({ sheet: id, says: number }) => {
          const row = register().find((s) => s.id === id);
          return row && row.number !== number ? [changing("sheets", row, { number })] : [];
        });
        if (!steps.length) say(`The sheets after ${sheet.number} are numbered on from it already.`);
        await commit(project, `renumber from ${sheet.number}`, steps);
      } catch (error) {
        told(error);
      }
    }

    const deleteSheet = (sheet: Sheet) =>
      commit(project, `delete sheet ${sheet.number}`, [...inOrder(sheet.id).map((v) => deleting("viewports", v)), deleting("sheets", sheet)]);

    /** Put a sheet where another stands in the register. */
    function moveSheet(sheet: Sheet, to: number) {
      const order = register().filter((s) => s.id !== sheet.id);
      order.splice(to, 0, sheet);
      return commit(project, `move ${sheet.number} in the register`, renumbered(order));
    }

    return { change, reshape, changeSheet, place, arrange, placeIn, copy, copyTo, remove, stack, addSheets, duplicateSheet, deleteSheet, moveSheet, renumberFrom };
  }, [project]);
}

export type Edits = ReturnType<typeof useEdits>;
