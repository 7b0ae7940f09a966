/** What the check finds, and what is checked, as the server has it. */
import { useQuery } from "@tanstack/react-query";
import { api, type Checks, data } from "./client";
import { ofProject } from "./queryClient";
import { watched, watchedJob } from "./pace";
import { consistent } from "./writing";

/** What the last check of the set has found, watched closely while one is under way. */
export const useChecks = (project: string) =>
  useQuery({
    queryKey: ["checks", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/checks/", ofProject(project))) as unknown as Promise<Checks>),
    refetchInterval: (query) => watchedJob(Boolean(query.state.data?.job), 300, 4_000),
  });
/** What there is to check; it never changes. */
export const useRules = () =>
  useQuery({ queryKey: ["rules"], queryFn: () => data(api.GET("/api/rules/", {})), staleTime: Infinity });
export const useWaivers = (project: string) =>
  useQuery({
    queryKey: ["waivers", project],
    queryFn: () => consistent(() => data(api.GET("/api/waivers/", ofProject(project)))),
    refetchInterval: watched,
  });
export const useCheckRules = (project: string) =>
  useQuery({
    queryKey: ["check_rules", project],
    queryFn: () => consistent(() => data(api.GET("/api/check-rules/", ofProject(project)))),
    refetchInterval: watched,
    select: ([rules]) => rules,
  });
