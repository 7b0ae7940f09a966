/** Pens and plot settings, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import { api, data, type PenTable, type PlotSettings } from "./client";
import { ofProject } from "./queryClient";
import { watched } from "./pace";
import { consistent } from "./writing";

export const usePenTables = (project: string) =>
  useQuery({
    queryKey: ["pen_tables", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/pen-tables/", ofProject(project))) as Promise<PenTable[]>),
    refetchInterval: watched,
  });
export const usePlotSettings = (project: string) =>
  useQuery({
    queryKey: ["plot_settings", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/plot-settings/", ofProject(project))) as Promise<PlotSettings[]>),
    refetchInterval: watched,
  });
/** What pens and devices there are; it never changes. */
export const usePenParts = () =>
  useQuery({
    queryKey: ["pen-parts"],
    queryFn: () => data(api.GET("/api/pen-parts/", {})),
    staleTime: Infinity,
  });
