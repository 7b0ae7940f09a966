/** Plots, devices and lists of sheets, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import { api, data } from "./client";
import { ofProject } from "./queryClient";
import { isActive } from "./jobs";
import { watched } from "./pace";
import { consistent } from "./writing";

export const useSheetLists = (project: string) =>
  useQuery({
    queryKey: ["sheet_lists", project],
    queryFn: () => consistent(() => data(api.GET("/api/sheet-lists/", ofProject(project)))),
    refetchInterval: watched,
  });
export const useDeviceKinds = () =>
  useQuery({
    queryKey: ["device-kinds"],
    queryFn: () => data(api.GET("/api/device-kinds/", {})),
    staleTime: Infinity,
  });
/** The devices and what was sent to them: others use them too, so they are looked at often. */
export const useDevices = () =>
  useQuery({ queryKey: ["devices"], queryFn: () => data(api.GET("/api/devices/")), refetchInterval: 3_000 });
export const usePrints = (project: string) =>
  useQuery({
    queryKey: ["prints", project],
    queryFn: () => data(api.GET("/api/prints/", ofProject(project))),
    refetchInterval: 1_500,
  });
/** A plot, watched until it has ended. */
export const usePlot = (id: string | null) =>
  useQuery({
    queryKey: ["plot", id],
    queryFn: () => data(api.GET("/api/plots/{job}/", { params: { path: { job: id ?? "" } } })),
    enabled: id !== null,
    refetchInterval: (query) => (!query.state.data || isActive(query.state.data.job) ? 100 : false),
  });
