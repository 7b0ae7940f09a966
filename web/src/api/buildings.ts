/** Versions of the building, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import { api, data } from "./client";
import { ofProject } from "./queryClient";

export const useModelVersions = (project: string) =>
  useQuery({
    queryKey: ["model-versions", project],
    queryFn: () => data(api.GET("/api/model-versions/", ofProject(project))),
  });
/** Files that wait for an answer before they become a version. */
export const useSizeQuestions = (project: string) =>
  useQuery({
    queryKey: ["size-questions", project],
    queryFn: () => data(api.GET("/api/size-questions/", ofProject(project))),
  });
/** What elements of the building say of themselves, beside what all have: by names for schedules and tags. */
export const useElementSources = (project: string) =>
  useQuery({
    queryKey: ["sources", project],
    queryFn: async () =>
      (await data(api.GET("/api/annotations/sources/", { params: { query: { project } } }))).names,
  });
