/** Changes to views: shown at once, written in order, and able to be taken back. */
import { useMemo } from "react";
import { api, data, type View } from "../../api/client";
import { commit } from "../../api/deeds";
import { queryClient } from "../../api/queries";
import { changing, decided, deleting, making, newId, put, refresh } from "../../api/rows";
import { useDesk } from "../../board/desk";
import type { Shown, Spec, Treatment } from "./kinds";

type ViewChange = Partial<Pick<View, "name" | "spec" | "held" | "subset">>;

/** All that can be done to the views of a project. Each deed can be taken back. */
export function useViewEdits(project: string) {
  return useMemo(() => {
    const { done, say } = useDesk.getState();
    const told = (error: unknown) => say(error instanceof Error ? error.message : String(error), true);
    const jobsOf = () => void queryClient.invalidateQueries({ queryKey: ["jobs", project] });

    const change = (view: View, to: ViewChange, what: string) => commit(project, what, [changing("views", view, to)]);

    async function make(spec: Spec, name?: string, subset?: string | null): Promise<string | undefined> {
      try {
        const row = await decided(() => data(api.POST("/api/views/", { body: { id: newId(), project, spec, name, subset } })));
        put("views", project, row);
        jobsOf();
        done({ what: `make ${row.name}`, steps: [making("views", row)] });
        return row.id;
      } catch (error) {
        told(error);
        return undefined;
      }
    }

    /** Its viewports go with it, and come back with it. */
    async function remove(view: View) {
      const on = await data(api.GET("/api/viewports/", { params: { query: { project } } }));
      const gone = on.filter((v) => v.view === view.id).map((v) => deleting("viewports", v));
      return commit(project, `delete ${view.name}`, [...gone, deleting("views", view)]);
    }

    async function makeStandard() {
      try {
        const made = await decided(() => data(api.POST("/api/views/standard/", { body: { project } })));
        for (const view of made) put("views", project, view);
        jobsOf();
        if (!made.length) say("The standard views are all there already.");
        else done({ what: `make ${made.length} standard views`, steps: made.map((view) => making("views", view)) });
      } catch (error) {
        told(error);
      }
    }

    async function treat(views: View[], treatment: Treatment, shown: Shown, what: string) {
      const before = new Map(views.map((v) => [v.id, v]));
      try {
        const body = { views: views.map((v) => v.id), treatment, shown };
        const changed = await decided(() => data(api.POST("/api/views/treat/", { body })));
        for (const view of changed) put("views", project, view);
        const steps = changed.flatMap((view) => {
          const old = before.get(view.id);
          return old ? [changing("views", old, { spec: view.spec })] : [];
        });
        refresh(project, steps);
        done({ what, steps });
      } catch (error) {
        told(error);
      }
    }

    async function bringUpToDate(some?: readonly View[]) {
      try {
        if (some) for (const view of some) await data(api.POST("/api/views/{id}/draw/", { params: { path: { id: view.id } } }));
        else await data(api.POST("/api/views/bring-up-to-date/", { body: { project } }));
        jobsOf();
      } catch (error) {
        told(error);
      }
    }

    return { change, make, remove, makeStandard, treat, bringUpToDate };
  }, [project]);
}

export type ViewEdits = ReturnType<typeof useViewEdits>;
