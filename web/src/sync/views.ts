/** Changes to views: shown at once, written in order, and able to be undone. */
import { useMemo } from "react";
import {
  api,
  data,
  type Annotation,
  type LineSettings,
  type Shown,
  type TouchUp,
  type View,
  type Viewport,
  type ViewSpec,
} from "../api/client";
import { commit } from "./commands";
import { queryClient } from "../api/queryClient";
import { changing, afterWrites, deleting, making, newId, upsert, refresh } from "./rows";
import { notify, notifyError } from "../stores/notices";
import { record } from "./history";
import { t } from "../words/words";

type ViewChange = Partial<Pick<View, "name" | "spec" | "held" | "subset" | "appearance" | "simplification">>;

const drawnAnew = (behind: number) =>
  behind === 1
    ? t("One of them was out of date, and is drawn from the newest version.")
    : t("{behind} of them were out of date, and are drawn from the newest version.", { behind });

/** All that can be done to the views of a project. Each can be undone. */
export function useViewEdits(project: string) {
  return useMemo(() => {
    const jobsOf = () => void queryClient.invalidateQueries({ queryKey: ["jobs", project] });

    const change = (view: View, to: ViewChange, what: string) =>
      commit(project, what, [changing("views", view, to)]);

    async function make(spec: ViewSpec, name?: string, subset?: string | null): Promise<string | undefined> {
      try {
        const row = (await afterWrites(() =>
          data(
            api.POST("/api/views/", { body: { id: newId(), project, spec: spec as never, name, subset } }),
          ),
        )) as View;
        upsert("views", project, row);
        jobsOf();
        record({ what: t("make {name}", { name: row.name }), steps: [making("views", row)] });
        return row.id;
      } catch (error) {
        notifyError(error);
        return undefined;
      }
    }

    /** Change several views alike, in one step. Those that were out of date are drawn anew by that: told. */
    async function changeAll(views: readonly View[], to: (view: View) => ViewSpec, what: string) {
      const behind = views.filter((v) => v.state === "out_of_date").length;
      const steps = views.map((v) => changing("views", v, { spec: to(v) }));
      if ((await commit(project, what, steps)) && behind) notify(drawnAnew(behind));
    }

    /** Its viewports, all that is annotated and touched up in it go with it, and come back with it. */
    async function remove(view: View) {
      const ofProject = { params: { query: { project } } };
      const viewports = (await data(api.GET("/api/viewports/", ofProject))) as Viewport[];
      const pieces = (await data(api.GET("/api/annotations/", ofProject))) as Annotation[];
      const touchUps = (await data(api.GET("/api/touch-ups/", ofProject))) as TouchUp[];
      const gone = viewports.filter((v) => v.view === view.id);
      const through = new Set(gone.map((v) => v.id));
      return commit(project, t("delete {name}", { name: view.name }), [
        ...pieces
          .filter((p) => p.view === view.id || through.has(p.viewport ?? ""))
          .map((p) => deleting("annotations", p)),
        ...touchUps.filter((each) => each.view === view.id).map((each) => deleting("touch_ups", each)),
        ...gone.map((v) => deleting("viewports", v)),
        deleting("views", view),
      ]);
    }

    async function makeStandard() {
      try {
        const made = (await afterWrites(() =>
          data(api.POST("/api/views/standard/", { body: { project } })),
        )) as View[];
        for (const view of made) upsert("views", project, view);
        jobsOf();
        if (!made.length) notify(t("The standard views are all there already."));
        else
          record({
            what: t("make {count} standard views", { count: made.length }),
            steps: made.map((view) => making("views", view)),
          });
      } catch (error) {
        notifyError(error);
      }
    }

    async function changeSettings(views: View[], line_settings: LineSettings, shown: Shown, what: string) {
      const before = new Map(views.map((v) => [v.id, v]));
      try {
        const body = {
          views: views.map((v) => v.id),
          line_settings: line_settings as never,
          shown: shown as never,
        };
        const changed = (await afterWrites(() =>
          data(api.POST("/api/views/change-settings/", { body })),
        )) as View[];
        for (const view of changed) upsert("views", project, view);
        const steps = changed.flatMap((view) => {
          const old = before.get(view.id);
          return old ? [changing("views", old, { spec: view.spec })] : [];
        });
        refresh(project, steps);
        record({ what, steps });
        const behind = views.filter((v) => v.state === "out_of_date").length;
        if (behind) notify(drawnAnew(behind));
      } catch (error) {
        notifyError(error);
      }
    }

    async function bringUpToDate(some?: readonly View[]) {
      try {
        if (some)
          for (const view of some)
            await data(api.POST("/api/views/{id}/draw/", { params: { path: { id: view.id } } }));
        else await data(api.POST("/api/views/bring-up-to-date/", { body: { project } }));
        jobsOf();
      } catch (error) {
        notifyError(error);
      }
    }

    return { change, changeAll, make, remove, makeStandard, changeSettings, bringUpToDate };
  }, [project]);
}

export type ViewEdits = ReturnType<typeof useViewEdits>;
