/** Who is signed in, and their projects, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import { api, data } from "./client";

export const useSession = () =>
  useQuery({ queryKey: ["session"], queryFn: () => data(api.GET("/api/session/")), staleTime: Infinity });
export const useProjects = () =>
  useQuery({ queryKey: ["projects"], queryFn: () => data(api.GET("/api/projects/")) });
export const useProject = (id: string) =>
  useQuery({
    queryKey: ["projects", id],
    queryFn: () => data(api.GET("/api/projects/{id}/", { params: { path: { id } } })),
  });
