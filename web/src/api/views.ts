/** Views and what they are drawn with, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import { api, data, type NamedLineSettings, type ReceivedFile, type View } from "./client";
import { ofProject } from "./queryClient";
import { watched } from "./pace";
import { consistent } from "./writing";

export const useViews = (project: string) =>
  useQuery({
    queryKey: ["views", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/views/", ofProject(project))) as unknown as Promise<View[]>),
    refetchInterval: watched,
  });
export const useLineSettings = (project: string) =>
  useQuery({
    queryKey: ["line_settings", project],
    queryFn: () => data(api.GET("/api/line-settings/", ofProject(project))) as Promise<NamedLineSettings[]>,
  });
export const useSubsets = (project: string) =>
  useQuery({
    queryKey: ["subsets", project],
    queryFn: () => data(api.GET("/api/subsets/", ofProject(project))),
  });
export const useReceivedFiles = (project: string) =>
  useQuery({
    queryKey: ["received-files", project],
    queryFn: () => data(api.GET("/api/received-files/", ofProject(project))) as Promise<ReceivedFile[]>,
    enabled: Boolean(project),
  });
