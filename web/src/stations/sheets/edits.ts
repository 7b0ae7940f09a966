/** Changes to sheets and viewports: shown at once, written in order, and able to be taken back. */
import { useMemo } from "react";
import { api, data, type Sheet, type Viewport } from "../../api/client";
import { at, drop, inOrder, newId, put, refresh, refused, rows, setRows } from "../../api/rows";
import { useDesk } from "../../board/desk";
import type { Geometry } from "../../board/geometry";

type SheetChange = Partial<Omit<Sheet, "id" | "project" | "version" | "free_area">>;
/** A scale comes with its ratio, so that the board can show it before the server has answered. */
export type ViewportChange = Partial<Geometry> & { scale?: string };
async function writeViewport(project: string, id: string, change: ViewportChange) {
  setRows("viewports", project, (old) => old.map((v) => (v.id === id ? { ...v, ...change } : v)));
  try {
    const row = await inOrder(() => {
      const version = rows("viewports", project).find((v) => v.id === id)?.version;
      const { ratio: _, ...body } = change;
      return data(api.PATCH("/api/viewports/{id}/", { ...at(id), body: { ...body, version } }));
    });
    // A later change may be on the screen already; only the version is news then.
    setRows("viewports", project, (old) => old.map((v) => (v.id === id ? { ...row, ...v, version: row.version } : v)));
    refresh(project);
  } catch (error) {
    refused("viewports", project, error);
  }
}

async function writeSheet(project: string, id: string, change: SheetChange) {
  setRows("sheets", project, (old) => old.map((s) => (s.id === id ? { ...s, ...change } : s)));
  try {
    const row = await inOrder(() => {
      const version = rows("sheets", project).find((s) => s.id === id)?.version;
      return data(api.PATCH("/api/sheets/{id}/", { ...at(id), body: { ...change, version } }));
    });
    put("sheets", project, row);
    refresh(project);
  } catch (error) {
    refused("sheets", project, error);
  }
}

async function removeViewport(project: string, id: string) {
  try {
    await inOrder(() => data(api.DELETE("/api/viewports/{id}/", at(id))));
    drop("viewports", project, id);
    if (useDesk.getState().selected === id) useDesk.getState().select(null);
    refresh(project);
  } catch (error) {
    refused("viewports", project, error);
  }
}

export async function restoreViewport(project: string, { ratio: _r, version: _v, ...row }: Viewport) {
  try {
    put("viewports", project, await inOrder(() => data(api.POST("/api/viewports/", { body: row }))));
    refresh(project);
  } catch (error) {
    refused("viewports", project, error);
  }
}

async function removeSheet(project: string, id: string) {
  try {
    await inOrder(() => data(api.DELETE("/api/sheets/{id}/", at(id))));
    drop("sheets", project, id);
    setRows("viewports", project, (old) => old.filter((v) => v.sheet !== id));
    refresh(project);
  } catch (error) {
    refused("sheets", project, error);
  }
}

async function restoreSheet(project: string, { version: _v, free_area: _f, ...row }: Sheet, viewports: Viewport[]) {
  try {
    const made = await inOrder(() => data(api.POST("/api/sheets/", { body: row })));
    setRows("sheets", project, (old) => [...old, made].sort((a, b) => (a.position ?? 0) - (b.position ?? 0)));
  } catch (error) {
    refused("sheets", project, error);
  }
  for (const viewport of viewports) await restoreViewport(project, viewport);
}

/** All that can be done to the sheets of a project. Each deed can be taken back. */
export function useEdits(project: string) {
  return useMemo(() => {
    const { done } = useDesk.getState();

    async function changeViewport(before: Viewport, change: ViewportChange, what: string) {
      const id = before.id;
      const back = Object.fromEntries(Object.keys(change).map((k) => [k, before[k as keyof Viewport]])) as ViewportChange;
      done({
        what,
        undo: () => writeViewport(project, id, back),
        redo: () => writeViewport(project, id, change),
      });
      await writeViewport(project, id, change).catch(() => undefined);
    }

    async function changeSheet(before: Sheet, change: SheetChange, what: string) {
      const id = before.id;
      const back = Object.fromEntries(Object.keys(change).map((k) => [k, before[k as keyof Sheet]])) as SheetChange;
      done({ what, undo: () => writeSheet(project, id, back), redo: () => writeSheet(project, id, change) });
      await writeSheet(project, id, change).catch(() => undefined);
    }

    async function placeView(view: string, sheet: string, point?: readonly [number, number]) {
      const id = newId();
      try {
        const body = { id, view, sheet, at: point && [...point] };
        const row = await inOrder(() => data(api.POST("/api/viewports/", { body })));
        put("viewports", project, row);
        useDesk.getState().select(id);
        refresh(project);
        done({
          what: "place a view",
          undo: () => removeViewport(project, id),
          redo: () => restoreViewport(project, row),
        });
      } catch (error) {
        useDesk.getState().say(error instanceof Error ? error.message : String(error), true);
      }
    }

    async function deleteViewport(viewport: Viewport) {
      const id = viewport.id;
      await removeViewport(project, id)
        .then(() =>
          done({
            what: "delete a viewport",
            undo: () => restoreViewport(project, viewport),
            redo: () => removeViewport(project, id),
          }),
        )
        .catch(() => undefined);
    }

    async function addSheet(like?: Sheet): Promise<string | undefined> {
      const id = newId();
      try {
        const body = { id, project, paper: like?.paper, orientation: like?.orientation };
        const row = await inOrder(() => data(api.POST("/api/sheets/", { body })));
        put("sheets", project, row);
        refresh(project);
        done({
          what: "add a sheet",
          undo: () => removeSheet(project, id),
          redo: () => restoreSheet(project, row, []),
        });
        return id;
      } catch (error) {
        useDesk.getState().say(error instanceof Error ? error.message : String(error), true);
        return undefined;
      }
    }

    async function deleteSheet(sheet: Sheet) {
      const id = sheet.id;
      const on = rows("viewports", project).filter((v) => v.sheet === id);
      await removeSheet(project, id)
        .then(() =>
          done({
            what: `delete sheet ${sheet.number}`,
            undo: () => restoreSheet(project, sheet, on),
            redo: () => removeSheet(project, id),
          }),
        )
        .catch(() => undefined);
    }

    return { changeViewport, changeSheet, placeView, deleteViewport, addSheet, deleteSheet };
  }, [project]);
}

export type Edits = ReturnType<typeof useEdits>;
