/** Changes to viewports: shown at once, written in order, and able to be undone. */
import { api, data, type Rung, type View, type Viewport } from "../../api/client";
import {
  geometryOf,
  outlined,
  rungFor,
  type Extents,
  type Geometry,
  type Point,
} from "../../canvas/geometry";
import { notify, notifyError } from "../../stores/notices";
import { select } from "../../stores/selection";
import { commit } from "../../sync/commands";
import { record } from "../../sync/history";
import { afterWrites, changing, making, newId, refresh, rows, upsert, type Step } from "../../sync/rows";
import { t } from "../../words/words";
import { contentsOf, type ViewportChange } from "./contents";

export type Projection = "third-angle" | "first-angle";

/** What changes of a viewport's row when it gets another geometry. */
function changeTo(before: Viewport, after: Geometry): ViewportChange {
  const old = geometryOf(before);
  const change: ViewportChange = Object.fromEntries(
    Object.entries(after).filter(
      ([key, value]) => JSON.stringify(old[key as keyof Geometry]) !== JSON.stringify(value),
    ),
  );
  if (change.ratio !== undefined) {
    const over = Number((1 / change.ratio).toFixed(4));
    Object.assign(change, { scale: `1:${over}`, ratio: 1 / over });
  }
  return change;
}

/** What a viewport has where nobody has changed it. */
const UNCHANGED = {
  pinned: false,
  framed: false,
  opaque: false,
  marks: true,
  levels: true,
  grid: true,
  rooms: true,
  room_fill: false,
  annotation: true,
  title_style: "plain",
  title_offset: [0, 0] as [number, number],
  mark_offsets: {},
  room_offsets: {},
  pen_table: null,
  pens: { roles: {}, layers: {} },
  shown: {} as Viewport["shown"],
  appearance: null,
  picture: null,
  wanted_picture: "",
  areas: null,
  wanted_areas: "",
} as const;
const NOWHERE: Geometry = {
  x: 0,
  y: 0,
  width: 1,
  height: 1,
  centre_u: 0,
  centre_v: 0,
  ratio: 1,
  turn: 0,
  shape: "polygon",
  corners: [],
};

/** All that can be done to the viewports of a project. */
export function viewportEdits(project: string) {
  const { on, inOrder, copiesOf, deletingAll } = contentsOf(project);
  const viewportsOf = (steps: readonly Step[]) =>
    steps.filter((s) => s.rows === "viewports").map((s) => s.id);

  const change = (
    viewports: readonly Viewport[],
    to: ViewportChange | ((v: Viewport) => ViewportChange),
    what: string,
  ) =>
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

  /** Rows that the server has placed: they stand on the sheet, and can be undone in one step. */
  function placed(made: Viewport[], what: string) {
    for (const row of made) upsert("viewports", project, row);
    const steps = made.map((row) => making("viewports", row));
    refresh(project, steps);
    record({ what, steps });
    select(made.map((row) => row.id));
  }

  async function place(views: readonly View[], sheet: string, point?: readonly [number, number]) {
    const made: Viewport[] = [];
    try {
      for (const view of views) {
        const body = { id: newId(), view: view.id, sheet, at: point && ([...point] as [number, number]) };
        made.push((await afterWrites(() => data(api.POST("/api/viewports/", { body })))) as Viewport);
      }
    } catch (error) {
      notifyError(error);
    }
    if (made.length)
      placed(made, made.length === 1 ? t("place a view") : t("place {count} views", { count: made.length }));
  }

  async function arrange(views: readonly View[], sheet: string, projection: Projection) {
    try {
      const body = { views: views.map((v) => v.id), projection };
      const made = await afterWrites(() =>
        data(api.POST("/api/sheets/{id}/arrange/", { params: { path: { id: sheet } }, body })),
      );
      placed(
        made.viewports as Viewport[],
        t("lay out {viewports} views", { viewports: made.viewports.length }),
      );
      if (made.notes.length) notify(made.notes.join(" "));
    } catch (error) {
      notifyError(error);
    }
  }

  /** A view seen through an outline that was drawn on the sheet, at the largest scale at which it fits. */
  function placeInOutline(view: View, sheet: string, points: readonly Point[], ladder: readonly Rung[]) {
    if (!view.extents) return;
    const [u0, v0, u1, v1] = view.extents as unknown as Extents;
    const frame = outlined({ ...NOWHERE, centre_u: (u0 + u1) / 2, centre_v: (v0 + v1) / 2 }, points);
    const rung = rungFor([u0, v0, u1, v1], frame, ladder);
    if (!rung) return;
    const row = {
      ...UNCHANGED,
      ...frame,
      ratio: rung.ratio,
      scale: rung.scale,
      centre_u: (u0 + u1) / 2,
      centre_v: (v0 + v1) / 2,
      id: newId(),
      sheet,
      view: view.id,
      position: nextPosition(sheet),
      linework: view.linework,
      extents: view.extents,
      axes: view.axes,
      wanted: view.wanted,
      state: view.state,
    };
    void commit(project, t("place a view in an outline"), [making("viewports", row)]);
    select(row.id);
  }

  const nextPosition = (sheet: string) => Math.max(-1, ...on(sheet).map((v) => v.position)) + 1;

  /** Copies of viewports on a sheet, moved by a distance; each stays linked to its view. */
  function copy(viewports: readonly Viewport[], sheet: string, by: number, what: string) {
    const first = nextPosition(sheet);
    const steps = viewports.flatMap((v, k) =>
      copiesOf(v, { sheet, position: first + k, x: v.x + by, y: v.y - by }),
    );
    void commit(project, what, steps);
    select(viewportsOf(steps));
  }

  /** Change a viewport, and put copies of it beside it, each with changes of its own; one step. */
  function spread(viewport: Viewport, first: ViewportChange, others: ViewportChange[], what: string) {
    const position = nextPosition(viewport.sheet);
    const copies = others.flatMap((to, k) => copiesOf(viewport, { ...to, position: position + k }));
    const steps = [changing("viewports", viewport, first), ...copies];
    void commit(project, what, steps);
    select([viewport.id, ...viewportsOf(copies)]);
  }

  function copyTo(viewports: readonly Viewport[], sheets: readonly string[]) {
    const steps = sheets.flatMap((sheet) => {
      const first = nextPosition(sheet);
      return viewports.flatMap((v, k) => copiesOf(v, { sheet, position: first + k }));
    });
    return commit(
      project,
      t("place on {count} {which}", {
        count: sheets.length,
        which: sheets.length === 1 ? t("sheet") : t("sheets"),
      }),
      steps,
    );
  }

  function remove(viewports: readonly Viewport[]) {
    select(null);
    const what =
      viewports.length === 1
        ? t("delete a viewport")
        : t("delete {count} viewports", { count: viewports.length });
    return commit(project, what, deletingAll(viewports));
  }

  /** One bubble of a view's mark in a viewport, of so many, moved by a distance; paper mm. */
  function moveMark(viewport: Viewport, view: string, bubble: number, count: number, [dx, dy]: Point) {
    const before = viewport.mark_offsets[view] ?? [];
    const offsets = Array.from({ length: count }, (_, k): [number, number] => {
      const [x = 0, y = 0] = before[k] ?? [];
      return k === bubble ? [x + dx, y + dy] : [x, y];
    });
    const mark_offsets = { ...viewport.mark_offsets, [view]: offsets };
    return change([viewport], { mark_offsets }, t("move a mark"));
  }

  /** Some viewports above, or below, all others of their sheet. */
  function stack(viewports: readonly Viewport[], front: boolean) {
    const [first] = viewports;
    if (!first) return;
    const ids = new Set(viewports.map((v) => v.id));
    const all = inOrder(first.sheet);
    const [chosen, others] = [all.filter((v) => ids.has(v.id)), all.filter((v) => !ids.has(v.id))];
    const order = front ? [...others, ...chosen] : [...chosen, ...others];
    const steps = order.flatMap((v, position) =>
      v.position === position ? [] : [changing("viewports", v, { position })],
    );
    void commit(project, front ? t("bring to the front") : t("send to the back"), steps);
  }

  return { change, reshape, place, arrange, placeInOutline, moveMark, copy, copyTo, spread, remove, stack };
}
