/** Changes on their way to the server: shown at once, sent in order, undone, put right when refused. */
import { beforeEach, describe, expect, it, vi } from "vitest";

const POST = vi.hoisted(() => vi.fn());
vi.mock("../src/api/client", async (original) => {
  const client = await original<typeof import("../src/api/client")>();
  return { ...client, api: { POST } };
});
const stored = new Map<string, string>();
vi.stubGlobal("sessionStorage", {
  getItem: (key: string) => stored.get(key) ?? null,
  setItem: (key: string, value: string) => void stored.set(key, value),
  removeItem: (key: string) => void stored.delete(key),
  clear: () => stored.clear(),
});

import { ApiError, type Viewport } from "../src/api/client";
import { queryClient } from "../src/api/queryClient";
import { useNotices } from "../src/stores/notices";
import { commit, step } from "../src/sync/commands";
import { openHistory, useHistory } from "../src/sync/history";
import { changing, deleting, discardFirst, receive, resume, rows } from "../src/sync/rows";

const PROJECT = "project";
const viewport = (x: number, version = 1) => ({ id: "v1", sheet: "s1", view: "w1", x, version }) as Viewport;
const shown = () => rows("viewports", PROJECT)[0];
const sent = (call: number) => POST.mock.calls[call]?.[1].body;
const answered = (...rowsOfAnswer: unknown[]) => POST.mockResolvedValueOnce({ data: { rows: rowsOfAnswer } });
const MOVED = { x: 40 } as Partial<Viewport>;

beforeEach(() => {
  POST.mockReset();
  stored.clear();
  queryClient.clear();
  queryClient.setQueryData(["viewports", PROJECT], [viewport(30)]);
  openHistory(PROJECT);
});

describe("a command", () => {
  it("is shown before the server has answered, and takes its version then", async () => {
    answered(viewport(40, 2));
    const done = commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    expect(shown()?.x).toBe(40);
    expect(await done).toBe(true);
    expect(sent(0).steps).toEqual([{ rows: "viewports", id: "v1", version: 1, row: { x: 40 } }]);
    expect(shown()?.version).toBe(2);
  });

  it("is undone from the version that it made, and redone", async () => {
    answered(viewport(40, 2));
    await commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    answered(viewport(30, 3));
    await step("undo");
    expect([shown()?.x, sent(1).steps[0].version, sent(1).steps[0].row]).toEqual([30, 2, { x: 30 }]);
    expect(useHistory.getState().future.map((c) => c.what)).toEqual(["move"]);
    answered(viewport(40, 4));
    await step("redo");
    expect([shown()?.x, useHistory.getState().past.length]).toEqual([40, 1]);
  });

  it("that deletes a row brings the same row back when it is undone", async () => {
    answered(null);
    await commit(PROJECT, "delete", [deleting("viewports", viewport(30))]);
    expect(rows("viewports", PROJECT)).toEqual([]);
    answered(viewport(30, 1));
    await step("undo");
    expect([shown()?.id, sent(1).steps[0].version]).toEqual(["v1", 0]);
  });

  it("that somebody else was before is put right, told, and not kept to be undone", async () => {
    const current = { rows: "viewports", id: "v1", row: viewport(77, 5) };
    POST.mockRejectedValueOnce(new ApiError(409, "This was changed elsewhere.", current));
    expect(await commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)])).toBe(false);
    expect([shown()?.x, shown()?.version]).toEqual([77, 5]);
    expect(useNotices.getState().message?.text).toBe("This was changed elsewhere.");
    expect(useHistory.getState().past).toEqual([]);
  });

  it("that is refused leaves the screen at once as it was, but for what was changed since", async () => {
    POST.mockRejectedValueOnce(new ApiError(400, "That number is another sheet's."));
    const refused = commit(PROJECT, "move", [
      changing("viewports", viewport(30), { x: 40, y: 5 } as Partial<Viewport>),
    ]);
    answered({ ...viewport(30, 2), y: 9 });
    const later = commit(PROJECT, "move", [
      changing("viewports", viewport(40), { y: 9 } as Partial<Viewport>),
    ]);
    expect(await refused).toBe(false);
    expect([shown()?.x, shown()?.y]).toEqual([30, 9]);
    expect(await later).toBe(true);
  });

  it("that deletes what may not be deleted shows it again", async () => {
    POST.mockRejectedValueOnce(new ApiError(403, "Only its owner may."));
    expect(await commit(PROJECT, "delete", [deleting("viewports", viewport(30))])).toBe(false);
    expect(shown()?.x).toBe(30);
  });

  it("waits for a lost connection and is sent again under its own id, once", async () => {
    vi.useFakeTimers();
    POST.mockRejectedValueOnce(new ApiError(0, "no connection"));
    answered(viewport(40, 2));
    const done = commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    await vi.advanceTimersByTimeAsync(10);
    expect(useNotices.getState().unsaved).toEqual({ count: 1, refused: "" });
    expect(stored.has("dunefold.unsaved")).toBe(true);
    await vi.advanceTimersByTimeAsync(5_000);
    vi.useRealTimers();
    expect(await done).toBe(true);
    expect(sent(1).change).toBe(sent(0).change);
    expect([useNotices.getState().unsaved, stored.has("dunefold.unsaved")]).toEqual([null, false]);
  });

  it("that the server cannot save just now is kept and sent again, whatever its fault", async () => {
    vi.useFakeTimers();
    for (const status of [500, 503, 507])
      POST.mockRejectedValueOnce(new ApiError(status, "The disk of the server is full."));
    answered(viewport(40, 2));
    const done = commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    await vi.advanceTimersByTimeAsync(10);
    expect(useNotices.getState().unsaved).toEqual({ count: 1, refused: "The disk of the server is full." });
    expect([shown()?.x, stored.has("dunefold.unsaved")]).toEqual([40, true]);
    await vi.advanceTimersByTimeAsync(10_000);
    vi.useRealTimers();
    expect(await done).toBe(true);
    expect(POST).toHaveBeenCalledTimes(4);
  });

  it("that the server never saves can be given up, and what follows is sent", async () => {
    POST.mockRejectedValueOnce(new ApiError(500, "Something went wrong on the server."));
    const given = commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    answered({ ...viewport(30, 2), y: 9 });
    const later = commit(PROJECT, "move", [
      changing("viewports", viewport(40), { y: 9 } as Partial<Viewport>),
    ]);
    await vi.waitFor(() => expect(useNotices.getState().unsaved).not.toBeNull());
    discardFirst();
    expect(await given).toBe(false);
    expect(await later).toBe(true);
    expect([shown()?.x, shown()?.y]).toEqual([30, 9]);
  });

  it("outlasts the page", async () => {
    answered(viewport(40, 2));
    await commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    useHistory.setState({ project: "", past: [], future: [] });
    openHistory(PROJECT);
    expect(useHistory.getState().past.map((c) => c.what)).toEqual(["move"]);
  });
});

describe("what somebody else has done", () => {
  it("is shown, and the next change is made from it", async () => {
    receive(PROJECT, "viewports", "v1", { ...viewport(50, 5) });
    expect(shown()?.x).toBe(50);
    answered(viewport(60, 6));
    await commit(PROJECT, "move", [changing("viewports", viewport(50, 5), { x: 60 } as Partial<Viewport>)]);
    expect(sent(0).steps[0].version).toBe(5);
  });

  it("appears and goes as rows do", () => {
    receive(PROJECT, "viewports", "v2", { ...viewport(10), id: "v2" });
    expect(rows("viewports", PROJECT).map((v) => v.id)).toEqual(["v1", "v2"]);
    receive(PROJECT, "viewports", "v1", null);
    expect(rows("viewports", PROJECT).map((v) => v.id)).toEqual(["v2"]);
  });

  it("does not bring back what was deleted, but has the server asked", () => {
    const asked = vi.spyOn(queryClient, "invalidateQueries");
    receive(PROJECT, "viewports", "v1", null);
    asked.mockClear();
    receive(PROJECT, "viewports", "v1", { ...viewport(50, 5) });
    expect(rows("viewports", PROJECT)).toEqual([]);
    expect(asked).toHaveBeenCalledWith({ queryKey: ["viewports", PROJECT] });
    asked.mockRestore();
  });

  it("is nothing where it is older than what is shown, or one's own change is on its way", async () => {
    answered(viewport(70, 9));
    const done = commit(PROJECT, "move", [
      changing("viewports", viewport(30), { x: 70 } as Partial<Viewport>),
    ]);
    receive(PROJECT, "viewports", "v1", { ...viewport(50, 8) });
    expect(shown()?.x).toBe(70);
    await done;
    receive(PROJECT, "viewports", "v1", { ...viewport(50, 8) });
    expect(shown()?.x).toBe(70);
  });
});

describe("a change that outlasts the page", () => {
  const KEPT = "dunefold.unsaved";
  const kept = (from: Record<string, number>) =>
    JSON.stringify([
      {
        id: "c1",
        project: PROJECT,
        what: "move",
        steps: [{ rows: "viewports", id: "v9", before: { x: 30 }, after: MOVED }],
        from,
      },
    ]);

  it("is sent from the version that it was made from, whatever a colleague has done since", async () => {
    queryClient.setQueryData(["viewports", PROJECT], [{ ...viewport(55, 7), id: "v9" }]);
    stored.set(KEPT, kept({ v9: 3 }));
    const refused = new ApiError(409, "This was changed elsewhere in the meantime.", {
      rows: "viewports",
      id: "v9",
      row: { ...viewport(55, 7), id: "v9" },
    });
    POST.mockRejectedValueOnce(refused);
    resume();
    await vi.waitFor(() => expect(POST).toHaveBeenCalledOnce());
    expect(sent(0).steps[0].version).toBe(3);
    await vi.waitFor(() => expect(shown()?.x).toBe(55));
  });

  it("is kept with that version", async () => {
    let answer: (value: unknown) => void = () => undefined;
    POST.mockReturnValueOnce(new Promise((resolve) => (answer = resolve)));
    const done = commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)]);
    const [first] = JSON.parse(stored.get(KEPT) ?? "[]") as { from: Record<string, number> }[];
    expect(first?.from.v1).toBeGreaterThan(0);
    answer({ data: { rows: [viewport(40, 90)] } });
    await done;
    expect(stored.has(KEPT)).toBe(false);
  });

  it("is sent where the browser keeps nothing, which is said", async () => {
    const setItem = vi.spyOn(sessionStorage, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    answered(viewport(40, 91));
    expect(await commit(PROJECT, "move", [changing("viewports", viewport(30), MOVED)])).toBe(true);
    expect(POST).toHaveBeenCalledOnce();
    expect(useNotices.getState().message?.text).toContain("keeps no more");
    setItem.mockRestore();
  });
});
