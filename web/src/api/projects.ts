/** Who is signed in, and their projects, as the server has them. */
import { queryOptions, useQuery } from "@tanstack/react-query";
import { api, data } from "./client";

export const sessionNow = () =>
  queryOptions({ queryKey: ["session"], queryFn: () => data(api.GET("/api/session/")), staleTime: Infinity });
export const useProjects = () =>
  useQuery({ queryKey: ["projects"], queryFn: () => data(api.GET("/api/projects/")) });
export const projectBy = (id: string) =>
  queryOptions({
    queryKey: ["projects", id],
    queryFn: () => data(api.GET("/api/projects/{id}/", { params: { path: { id } } })),
  });
export const useProject = (id: string) => useQuery(projectBy(id));
export const useSession = () => useQuery(sessionNow());
