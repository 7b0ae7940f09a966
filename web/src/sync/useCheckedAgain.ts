/** A set that has changed since it was checked is checked again by itself. */
import { useEffect } from "react";
import { api, data, type Checks } from "../api/client";
import { queryClient } from "../api/queries";
import { notifyError } from "../stores/notices";
import { afterWrites } from "./rows";

export function useCheckedAgain(project: string, checks: Checks | undefined) {
  const stale = checks && !checks.fresh && !checks.job;
  useEffect(() => {
    if (!stale) return;
    afterWrites(() => data(api.POST("/api/checks/", { body: { project } })))
      .then(() => queryClient.invalidateQueries({ queryKey: ["checks", project] }))
      .catch(notifyError);
  }, [stale, project]);
}
