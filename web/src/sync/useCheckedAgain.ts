/** A set that has changed since it was checked is checked again by itself, some milliseconds later. */
import { useEffect } from "react";
import { api, data, type Checks } from "../api/client";
import { queryClient } from "../api/queryClient";
import { notifyError } from "../stores/notices";
import { afterWrites } from "./rows";

export function useCheckedAgain(project: string, checks: Checks | undefined, after = 0) {
  const stale = checks && !checks.fresh && !checks.job;
  useEffect(() => {
    if (!stale) return;
    const check = () =>
      afterWrites(() => data(api.POST("/api/checks/", { body: { project } })))
        .then(() => queryClient.invalidateQueries({ queryKey: ["checks", project] }))
        .catch(notifyError);
    const timer = window.setTimeout(() => void check(), after);
    return () => window.clearTimeout(timer);
  }, [stale, project, after]);
}
