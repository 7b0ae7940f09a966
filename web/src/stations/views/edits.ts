/** Changes to views: shown at once, written in order, and able to be taken back. */
import { useMemo } from "react";
import { api, data, type View, type Viewport } from "../../api/client";
import { queryClient } from "../../api/queries";
import { at, drop, inOrder, newId, put, refresh, refused, rows, setRows } from "../../api/rows";
import { useDesk } from "../../board/desk";
import { restoreViewport } from "../sheets/edits";
import type { Shown, Spec, Treatment } from "./kinds";

export type ViewChange = Partial<Pick<View, "name" | "spec" | "held" | "subset">>;

/** A changed view is drawn anew in the background; look at once whether that is under way. */
const jobsOf = (project: string) => void queryClient.invalidateQueries({ queryKey: ["jobs", project] });

export async function writeView(project: string, id: string, change: ViewChange) {
  setRows("views", project, (old) => old.map((v) => (v.id === id ? { ...v, ...change } : v)));
  try {
    const row = await inOrder(() => {
      const version = rows("views", project).find((v) => v.id === id)?.version;
      return data(api.PATCH("/api/views/{id}/", { ...at(id), body: { ...change, version } }));
    });
    put("views", project, row);
    jobsOf(project);
  } catch (error) {
    refused("views", project, error);
  }
}

async function makeView(project: string, id: string, view: Partial<Pick<View, "name" | "position" | "subset" | "held" | "drawn_from">> & { spec: Spec }) {
  try {
    const row = await inOrder(() => data(api.POST("/api/views/", { body: { id, project, ...view } })));
    put("views", project, row);
    jobsOf(project);
    return row;
  } catch (error) {
    refused("views", project, error);
  }
}

async function removeView(project: string, id: string) {
  try {
    await inOrder(() => data(api.DELETE("/api/views/{id}/", at(id))));
    drop("views", project, id);
    setRows("viewports", project, (old) => old.filter((v) => v.view !== id));
    refresh(project);
  } catch (error) {
    refused("views", project, error);
  }
}

async function restoreView(project: string, { id, name, spec, position, subset, held, drawn_from }: View, viewports: Viewport[]) {
  await makeView(project, id, { name, spec, position, subset, held, drawn_from });
  for (const viewport of viewports) await restoreViewport(project, viewport);
}

/** All that can be done to the views of a project. Each deed can be taken back. */
export function useViewEdits(project: string) {
  return useMemo(() => {
    const { done, say } = useDesk.getState();
    const quietly = () => undefined; // what went wrong has been told

    async function change(before: View, to: ViewChange, what: string) {
      const back = Object.fromEntries(Object.keys(to).map((k) => [k, before[k as keyof ViewChange]])) as ViewChange;
      const id = before.id;
      done({ what, undo: () => writeView(project, id, back), redo: () => writeView(project, id, to) });
      await writeView(project, id, to).catch(quietly);
    }

    async function make(spec: Spec, name?: string, subset?: string | null): Promise<string | undefined> {
      const id = newId();
      const row = await makeView(project, id, { spec, name, subset }).catch(quietly);
      if (!row) return undefined;
      done({
        what: `make ${row.name}`,
        undo: () => removeView(project, id),
        redo: () => restoreView(project, row, []),
      });
      return id;
    }

    async function remove(view: View) {
      const placed = await data(api.GET("/api/viewports/", { params: { query: { project } } }));
      const on = placed.filter((v) => v.view === view.id);
      await removeView(project, view.id)
        .then(() =>
          done({
            what: `delete ${view.name}`,
            undo: () => restoreView(project, view, on),
            redo: () => removeView(project, view.id),
          }),
        )
        .catch(quietly);
    }

    async function makeStandard() {
      try {
        const made = await data(api.POST("/api/views/standard/", { body: { project } }));
        for (const view of made) put("views", project, view);
        jobsOf(project);
        if (!made.length) say("The standard views are all there already.");
        else
          done({
            what: `make ${made.length} standard views`,
            undo: async () => {
              for (const view of made) await removeView(project, view.id);
            },
            redo: async () => {
              for (const view of made) await restoreView(project, view, []);
            },
          });
      } catch (error) {
        say(error instanceof Error ? error.message : String(error), true);
      }
    }

    async function treat(views: View[], treatment: Treatment, shown: Shown, what: string) {
      const before = views.map((v) => [v.id, v.spec] as const);
      const ids = views.map((v) => v.id);
      const write = async () => {
        const changed = await data(api.POST("/api/views/treat/", { body: { views: ids, treatment, shown } }));
        for (const view of changed) put("views", project, view);
        jobsOf(project);
      };
      try {
        await write();
        done({
          what,
          undo: async () => {
            for (const [id, spec] of before) await writeView(project, id, { spec });
          },
          redo: write,
        });
      } catch (error) {
        say(error instanceof Error ? error.message : String(error), true);
      }
    }

    async function bringUpToDate(some?: readonly View[]) {
      try {
        if (some) for (const view of some) await data(api.POST("/api/views/{id}/draw/", at(view.id)));
        else await data(api.POST("/api/views/bring-up-to-date/", { body: { project } }));
        jobsOf(project);
      } catch (error) {
        say(error instanceof Error ? error.message : String(error), true);
      }
    }

    return { change, make, remove, makeStandard, treat, bringUpToDate };
  }, [project]);
}

export type ViewEdits = ReturnType<typeof useViewEdits>;
