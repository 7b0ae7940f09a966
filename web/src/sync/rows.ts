/**
 * Rows of a project that people change: shown at once, written in order, and put right when the server
 * refuses.
 */
import {
  ApiError,
  api,
  data,
  type Annotation,
  type AnnotationStyle,
  type CheckRules,
  type Comment,
  type LibrarySymbol,
  type ListedNote,
  type NamedLineSettings,
  type PenTable,
  type PlotSettings,
  type Recipient,
  type Register,
  type Scan,
  type Sheet,
  type SheetList,
  type Subset,
  type Template,
  type TouchUp,
  type View,
  type Viewport,
  type Waiver,
} from "../api/client";
import { queryClient } from "../api/queryClient";
import { whileWriting } from "../api/writing";
import { notify, notifyError, useNotices } from "../stores/notices";
import { t } from "../words/words";

interface Rows {
  sheets: Sheet;
  viewports: Viewport;
  annotations: Annotation;
  touch_ups: TouchUp;
  listed_notes: ListedNote;
  annotation_styles: AnnotationStyle;
  symbols: LibrarySymbol;
  views: View;
  subsets: Subset;
  line_settings: NamedLineSettings;
  registers: Register;
  templates: Template;
  pen_tables: PenTable;
  plot_settings: PlotSettings;
  sheet_lists: SheetList;
  waivers: Waiver;
  recipients: Recipient;
  check_rules: CheckRules;
  comments: Comment;
  scans: Scan;
}
export type Kind = keyof Rows;
type Part = Record<string, unknown>;

/** What is done to one row: made where there is nothing before, deleted where there is nothing after. */
export interface Step {
  rows: Kind;
  id: string;
  before: Part | null;
  after: Part | null;
}

interface Unsaved {
  /** What it comes to, in words. */
  what: string;
  /** By which the server knows it again: sent twice, because the first answer was lost, it is made once. */
  id: string;
  project: string;
  steps: Step[];
  /**
   * The versions of its rows that it was made from, where the page was left meanwhile: what others have done
   * since is not what it was made from.
   */
  from?: Readonly<Record<string, number>>;
  resolve: () => void;
  reject: (error: unknown) => void;
}

/**
 * What is on its way to the server, in its order. It outlasts a reload, and a connection that is lost for a
 * while.
 */
const queue: Unsaved[] = [];
/** As many letters of what was done are kept. */
const MAX_WORDS = 200;
const STORED_AS = "dunefold.unsaved";
/** A change that is on its way for longer is told as being saved; milliseconds. */
const SAY_AFTER = 700;
/** How long to wait before a change is sent again, and where others were saving; milliseconds. */
const [RETRY_AFTER, RETRY_BUSY_AFTER] = [3_000, 500] as const;
let underWay = false;
/** Whether the first change that waits is to be given up, and what ends the waiting. */
let discarding = false;
let wake: () => void = () => undefined;
const waitOr = (milliseconds: number) =>
  new Promise<void>((resolve) => {
    wake = resolve;
    setTimeout(resolve, milliseconds);
  });
/**
 * The versions that the server has answered with. What is on the screen is ahead of what has been sent: a row
 * whose change still waits may have been deleted there already, or deleted and made again.
 */
const versions = new Map<string, number>();
/** Of these, those that the server has answered this page's own changes with. */
const answered = new Map<string, number>();
/** Rows that were deleted: news of one may be older than that, or that it is there again. */
const gone = new Set<string>();

export function rows<K extends Kind>(kind: K, project: string): Rows[K][] {
  return queryClient.getQueryData<Rows[K][]>([kind, project]) ?? [];
}
export function setRows<K extends Kind>(kind: K, project: string, change: (rows: Rows[K][]) => Rows[K][]) {
  queryClient.setQueryData<Rows[K][]>([kind, project], (old) => change(old ?? []));
}
export function upsert<K extends Kind>(kind: K, project: string, row: Rows[K]) {
  setRows(kind, project, (old) =>
    old.some((r) => r.id === row.id) ? old.map((r) => (r.id === row.id ? row : r)) : [...old, row],
  );
}
const drop = (kind: Kind, project: string, id: string) =>
  setRows(kind, project, (old) => (old as { id?: string }[]).filter((r) => r.id !== id) as never[]);
const find = (kind: Kind, project: string, id: string) =>
  (rows(kind, project) as ({ id: string; version: number } & Part)[]).find((r) => r.id === id);

/** The steps that undo some steps. */
export const inverse = (steps: readonly Step[]): Step[] =>
  steps.toReversed().map((s) => ({ ...s, before: s.after, after: s.before }));

/** A step that changes some fields of a row from what they are now. */
export function changing<K extends Kind>(kind: K, row: Rows[K], to: Partial<Rows[K]>): Step {
  const before = Object.fromEntries(Object.keys(to).map((key) => [key, (row as unknown as Part)[key]]));
  return { rows: kind, id: row.id, before, after: to as Part };
}
export const making = <K extends Kind>(kind: K, row: Partial<Rows[K]> & { id: string }): Step => ({
  rows: kind,
  id: row.id,
  before: null,
  after: row as Part,
});
export const deleting = <K extends Kind>(kind: K, row: Rows[K]): Step => ({
  rows: kind,
  id: row.id,
  before: row as unknown as Part,
  after: null,
});

/**
 * Show steps at once and have them written, all or none. Rejects when the server refuses them, having shown
 * why.
 */
export function write(
  project: string,
  what: string,
  steps: Step[],
  id: string = newId(),
  from?: Unsaved["from"],
): Promise<void> {
  for (const step of steps) apply(project, step);
  return whileWriting(
    () =>
      new Promise<void>((resolve, reject) => {
        queue.push({ id, project, what, steps, from, resolve, reject });
        persist();
        void send();
      }),
  );
}

function apply(project: string, { rows: kind, id, before, after }: Step) {
  const version = find(kind, project, id)?.version;
  if (version) versions.set(id, Math.max(version, versions.get(id) ?? 0));
  if (after === null) drop(kind, project, id);
  else if (before === null) upsert(kind, project, { ...after, id, version: 0 } as never);
  else setRows(kind, project, (old) => old.map((r) => (r.id === id ? { ...r, ...after } : r)) as never[]);
}

async function send() {
  if (underWay) return;
  underWay = true;
  const slow = setTimeout(() => useNotices.setState({ saving: true }), SAY_AFTER);
  for (let first = queue[0]; first; first = queue[0]) {
    const { project, steps } = first;
    try {
      const body = {
        change: first.id,
        what: first.what.slice(0, MAX_WORDS),
        steps: steps.map(({ rows: kind, id, before, after }) => ({
          rows: kind,
          id,
          version: before === null ? 0 : versionFor(first, kind, id),
          row: after as never,
        })),
      };
      const answer = await data(api.POST("/api/changes/", { body }));
      useNotices.setState({ unsaved: null });
      queue.shift();
      steps.forEach((step, k) => applyAnswer(project, step, answer.rows[k] ?? null));
      first.resolve();
    } catch (error) {
      // The fault is the connection's or the server's, not the change's: it is kept until it can be saved.
      if (error instanceof ApiError && (error.status === 0 || error.status >= 500) && !discarding) {
        const refused = error.status === 0 ? "" : error.message;
        useNotices.setState({ unsaved: { count: queue.length, refused } });
        await waitOr(error.status === 503 ? RETRY_BUSY_AFTER : RETRY_AFTER);
        if (!discarding) continue;
      }
      discarding = false;
      useNotices.setState({ unsaved: null });
      queue.shift();
      revert(project, steps, error);
      first.reject(error);
    }
    persist();
    refresh(project, steps);
  }
  underWay = false;
  clearTimeout(slow);
  useNotices.setState({ saving: false });
}

/** The version of a row that a change of it is made from. */
function versionFor({ project, from }: Unsaved, kind: Kind, id: string): number {
  const known = from?.[id];
  if (known) return Math.max(known, answered.get(id) ?? 0);
  return Math.max(versions.get(id) ?? 0, find(kind, project, id)?.version ?? 0, 1);
}

/**
 * What the server made of a step. A later change to the row may be on the screen already; only the version is
 * news then.
 */
function applyAnswer(project: string, { rows: kind, id }: Step, row: Part | null) {
  if (!row) {
    versions.delete(id);
    answered.delete(id);
    gone.add(id);
    return;
  }
  gone.delete(id);
  versions.set(id, row.version as number);
  answered.set(id, row.version as number);
  const later = queue.some((u) => u.steps.some((s) => s.rows === kind && s.id === id));
  setRows(
    kind,
    project,
    (old) =>
      (old as { id?: string }[]).map((r) =>
        r.id !== id ? r : later ? { ...row, ...r, version: row.version } : row,
      ) as never[],
  );
}

/** What a refused step has shown is taken from the screen again, except where it was changed since. */
function takeBack(project: string, { rows: kind, id, before, after }: Step) {
  if (before === null) drop(kind, project, id);
  else if (after === null) upsert(kind, project, before as never);
  else
    setRows(
      kind,
      project,
      (old) =>
        (old as (Part & { id?: string })[]).map((r) => {
          if (r.id !== id) return r;
          const unchanged = Object.keys(before).filter((key) => Object.is(r[key], after[key]));
          return { ...r, ...Object.fromEntries(unchanged.map((key) => [key, before[key]])) };
        }) as never[],
    );
}

/** Say what went wrong, and show what the server has. */
function revert(project: string, steps: Step[], error: unknown) {
  notifyError(error);
  for (const step of steps.toReversed()) takeBack(project, step);
  const current =
    error instanceof ApiError
      ? (error.current as { rows: Kind; id: string; row: Part | null } | undefined)
      : undefined;
  if (current?.row) {
    versions.set(current.id, current.row.version as number);
    upsert(current.rows, project, current.row as never);
  } else if (current) drop(current.rows, project, current.id);
  for (const kind of new Set(steps.map((s) => s.rows)))
    void queryClient.invalidateQueries({ queryKey: [kind, project] });
}

/** What the list of drawings, or a mark, says of a sheet. */
const LISTED = ["position", "number", "title", "paper", "revisions"];

/** What depends on the rows of some steps is fetched again. */
export function refresh(project: string, steps: readonly Step[], own = true) {
  // Whatever was changed, the set may have to be checked again; whoever changes it has it checked.
  const stale = new Set<string>(own ? ["checks", "revision-offers"] : []);
  const sheets = new Set<unknown>();
  for (const { rows: kind, id, before, after } of steps) {
    const whole = before === null || after === null;
    if (kind === "viewports")
      for (const part of [before, after, find(kind, project, id)]) sheets.add(part?.sheet);
    if (kind === "viewports" && (whole || "shown" in after)) stale.add("views").add("jobs");
    // What is placed, and where in the set, is said by the marks of every sheet.
    if (kind === "viewports" && (whole || "position" in after || "view" in after || "scale" in after))
      stale.add("display");
    if (kind === "sheets") {
      sheets.add(id);
      // Marks and the list of drawings say what all sheets are called.
      if (whole || LISTED.some((name) => name in after)) stale.add("display");
      if (whole || ["number", "position", "discipline", "sheet_type"].some((name) => name in after))
        stale.add("number-warnings");
      if (!whole && ("paper" in after || "orientation" in after)) stale.add("viewports");
      if (whole || "number" in after) stale.add("views");
    }
    if (kind === "annotations")
      for (const part of [before, after, find(kind, project, id)]) {
        if (part?.sheet) sheets.add(part.sheet);
        // What stands in a view is seen on every sheet on which that is placed.
        if (part?.view) stale.add("display");
      }
    // What annotation everywhere is drawn with, or says.
    if (["pen_tables", "listed_notes", "annotation_styles", "symbols", "touch_ups"].includes(kind))
      stale.add("display");
    if (kind === "registers") stale.add("display").add("number-warnings").add("viewports").add("jobs");
    // What a device cannot print of a sheet depends on its plot settings.
    if (kind === "plot_settings") stale.add("sheets").add("plot-conflicts");
    if (kind === "templates") for (const key of ["display", "sheets", "templates"]) stale.add(key);
    if (kind === "views" || kind === "subsets")
      for (const key of ["display", "viewports", "jobs"]) stale.add(key);
    if (kind === "subsets") stale.add("views");
  }
  for (const key of stale)
    void queryClient.invalidateQueries({ queryKey: key === "display" ? [key] : [key, project] });
  if (!stale.has("display"))
    for (const id of sheets) if (id) void queryClient.invalidateQueries({ queryKey: ["display", id] });
}

/**
 * Show a row as somebody else has made it, null where they have deleted it; what depends on it is fetched
 * again. What one has changed oneself and is still on its way stays.
 */
export function receive(project: string, kind: Kind, id: string, row: Part | null) {
  const now = find(kind, project, id);
  const version = Math.max(versions.get(id) ?? 0, now?.version ?? 0);
  if (queue.some((u) => u.steps.some((s) => s.rows === kind && s.id === id))) return;
  if (row !== null && !now && gone.has(id)) {
    // The server knows which of the two came last.
    gone.delete(id);
    void queryClient.invalidateQueries({ queryKey: [kind, project] });
  } else if (row === null) {
    gone.add(id);
    if (!now) return;
    versions.delete(id);
    drop(kind, project, id);
    refresh(project, [{ rows: kind, id, before: now, after: null }], false);
  } else if ((row.version as number) > version || !now) {
    versions.set(id, row.version as number);
    const changed = Object.entries(row).filter(
      ([key, value]) => !now || JSON.stringify(now[key]) !== JSON.stringify(value),
    );
    upsert(kind, project, row as never);
    refresh(project, [{ rows: kind, id, before: now ?? null, after: Object.fromEntries(changed) }], false);
  }
}

/** Keep what waits, for a reload. Where the browser keeps nothing, it is sent all the same, which is said. */
function persist() {
  const unsaved = queue.map((each) => ({
    id: each.id,
    project: each.project,
    what: each.what,
    steps: each.steps,
    from: fromOf(each),
  }));
  try {
    if (unsaved.length) sessionStorage.setItem(STORED_AS, JSON.stringify(unsaved));
    else sessionStorage.removeItem(STORED_AS);
    told = false;
  } catch {
    // What is kept is older than what waits, and would be sent in its place.
    sessionStorage.removeItem(STORED_AS);
    if (!told) notify(t("This browser keeps no more: leave this page open until all is saved."), true);
    told = true;
  }
}
/** Whether it has been said that nothing is kept. */
let told = false;

/** The versions that a change was made from, for a page that has been left meanwhile. */
function fromOf(each: Unsaved): Readonly<Record<string, number>> {
  const found: Record<string, number> = {};
  for (const { rows: kind, id, before } of each.steps)
    if (before !== null) found[id] = versionFor(each, kind, id);
  return found;
}

/**
 * Take up again what had not reached the server when the page was left. Call it once the rows of a project
 * are there.
 */
export function resume() {
  const kept = JSON.parse(sessionStorage.getItem(STORED_AS) ?? "[]") as Pick<
    Unsaved,
    "id" | "project" | "what" | "steps" | "from"
  >[];
  if (!kept.length || queue.length) return;
  sessionStorage.removeItem(STORED_AS);
  for (const { id, project, what, steps, from } of kept)
    write(project, what, steps, id, from).catch(() => undefined);
}

/** Give up the first of the changes that the server does not save. */
export function discardFirst() {
  discarding = true;
  wake();
}

/** Ask the server for what it decides itself, after all that is on its way to it. */
export async function afterWrites<T>(ask: () => Promise<T>): Promise<T> {
  return whileWriting(async () => {
    while (queue.length) await new Promise((resolve) => setTimeout(resolve, 20));
    return ask();
  });
}

export const newId = () => crypto.randomUUID();
