/** The jobs of a project, as the server has them. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { api, data, type Job } from "./client";
import { ofProject } from "./queryClient";
import { watchedJob } from "./pace";

export const isActive = (job: Job) => job.state === "waiting" || job.state === "running";

/**
 * The jobs of a project, watched closely while any is under way; what a job changed is fetched again when it
 * ends.
 */
export function useJobs(project: string) {
  const client = useQueryClient();
  const jobs = useQuery({
    queryKey: ["jobs", project],
    queryFn: () => data(api.GET("/api/jobs/", ofProject(project))),
    refetchInterval: (query) => watchedJob(query.state.data?.some(isActive) ?? false, 400, 6_000),
  });
  // A job may begin and end between two looks; so it is the ended ones that are remembered.
  const known = useRef<ReadonlySet<string> | null>(null);
  useEffect(() => {
    if (!jobs.data) return;
    // What was read, drawn, shaded or pictured has changed rows; what was plotted or checked has not.
    const ended = jobs.data
      .filter((job) => !isActive(job) && ["read", "draw", "shade", "picture", "scan"].includes(job.kind))
      .map((job) => job.id);
    const news = known.current !== null && ended.some((id) => !known.current?.has(id));
    known.current = new Set(ended);
    if (news && jobs.data.some((job) => job.kind === "picture" || job.kind === "scan"))
      for (const key of ["comments", "scans"]) void client.invalidateQueries({ queryKey: [key] });
    if (news)
      for (const key of ["views", "viewports", "display", "model-versions", "size-questions"])
        void client.invalidateQueries({ queryKey: [key] });
  }, [client, jobs.data]);
  return jobs;
}
