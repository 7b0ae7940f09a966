/** What the server knows, cached here; the server owns it. */
import { QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { isWriting, settled } from "./writing";
import { ApiError, api, data, type Job, type PenTable, type PlotSettings, type Template } from "./client";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 2 && (!(error instanceof ApiError) || error.status === 0),
    },
  },
});

/** What others change appears by itself; not in the middle of one's own writing. */
const watched = () => (isWriting() ? false : 8_000);
const ofProject = (project: string) => ({ params: { query: { project } } });

export const useSession = () =>
  useQuery({ queryKey: ["session"], queryFn: () => data(api.GET("/api/session/")), staleTime: Infinity });
export const useProjects = () => useQuery({ queryKey: ["projects"], queryFn: () => data(api.GET("/api/projects/")) });
export const useProject = (id: string) =>
  useQuery({
    queryKey: ["projects", id],
    queryFn: () => data(api.GET("/api/projects/{id}/", { params: { path: { id } } })),
  });
export const useModelVersions = (project: string) =>
  useQuery({
    queryKey: ["model-versions", project],
    queryFn: () => data(api.GET("/api/model-versions/", ofProject(project))),
  });
export const useViews = (project: string) =>
  useQuery({ queryKey: ["views", project], queryFn: () => settled(() => data(api.GET("/api/views/", ofProject(project)))), refetchInterval: watched });
export const useTreatments = (project: string) =>
  useQuery({ queryKey: ["treatments", project], queryFn: () => data(api.GET("/api/treatments/", ofProject(project))) });
export const useSubsets = (project: string) =>
  useQuery({ queryKey: ["subsets", project], queryFn: () => data(api.GET("/api/subsets/", ofProject(project))) });
export const useSheets = (project: string) =>
  useQuery({ queryKey: ["sheets", project], queryFn: () => settled(() => data(api.GET("/api/sheets/", ofProject(project)))), refetchInterval: watched });
export const useViewports = (project: string) =>
  useQuery({ queryKey: ["viewports", project], queryFn: () => settled(() => data(api.GET("/api/viewports/", ofProject(project)))), refetchInterval: watched });
export const useTemplates = (project: string) =>
  useQuery({ queryKey: ["templates", project], queryFn: () => settled(() => data(api.GET("/api/templates/", ofProject(project))) as Promise<Template[]>), refetchInterval: watched });
/** What templates start from; it never changes. */
export const useStock = () => useQuery({ queryKey: ["stock"], queryFn: () => data(api.GET("/api/stock/")), staleTime: Infinity });
export const usePictures = (project: string) =>
  useQuery({ queryKey: ["pictures", project], queryFn: () => data(api.GET("/api/pictures/", ofProject(project))) });
export const usePenTables = (project: string) =>
  useQuery({ queryKey: ["pen_tables", project], queryFn: () => settled(() => data(api.GET("/api/pen-tables/", ofProject(project))) as Promise<PenTable[]>), refetchInterval: watched });
export const usePlotSettings = (project: string) =>
  useQuery({ queryKey: ["plot_settings", project], queryFn: () => settled(() => data(api.GET("/api/plot-settings/", ofProject(project))) as Promise<PlotSettings[]>), refetchInterval: watched });
export const useSheetLists = (project: string) =>
  useQuery({ queryKey: ["sheet_lists", project], queryFn: () => settled(() => data(api.GET("/api/sheet-lists/", ofProject(project)))), refetchInterval: watched });
/** What pen tables and plot settings start from; it never changes. */
export const usePenStock = () => useQuery({ queryKey: ["pen-stock"], queryFn: () => data(api.GET("/api/pen-stock/")), staleTime: Infinity });
export const usePlotStock = () => useQuery({ queryKey: ["plot-stock"], queryFn: () => data(api.GET("/api/plot-stock/")), staleTime: Infinity });
/** The devices and what was sent to them: others use them too, so they are looked at often. */
export const useDevices = () => useQuery({ queryKey: ["devices"], queryFn: () => data(api.GET("/api/devices/")), refetchInterval: 3_000 });
export const usePrints = (project: string) =>
  useQuery({ queryKey: ["prints", project], queryFn: () => data(api.GET("/api/prints/", ofProject(project))), refetchInterval: 1_500 });
/** What is odd about the numbers of sheets, by the sheet's id. */
export const useNumberDoubts = (project: string) =>
  useQuery({
    queryKey: ["doubts", project],
    queryFn: async () => Object.fromEntries((await data(api.GET("/api/sheets/doubts/", ofProject(project)))).map((d) => [d.sheet, d.says])),
    placeholderData: (last: Record<string, string> | undefined) => last,
  });
/** What every field says on a sheet where nothing is typed over it. */
export const useDerived = (sheet: string) =>
  useQuery({
    queryKey: ["display", sheet, "fields"],
    queryFn: async () => (await data(api.GET("/api/sheets/{id}/fields/", { params: { path: { id: sheet } } }))).derived,
    placeholderData: (last: Record<string, string> | undefined) => last,
  });
export const useLadder = (project: string) =>
  useQuery({ queryKey: ["ladder", project], queryFn: () => data(api.GET("/api/ladder/", ofProject(project))), placeholderData: (last) => last });
export const useDisplay = (sheet: string) =>
  useQuery({
    queryKey: ["display", sheet],
    queryFn: () => data(api.GET("/api/sheets/{id}/display/", { params: { path: { id: sheet } } })),
    placeholderData: (last) => last,
    enabled: Boolean(sheet),
  });

export const isUnderWay = (job: Job) => job.state === "waiting" || job.state === "running";

/** The jobs of a project, watched closely while any is under way; what a job changed is asked for anew when it ends. */
export function useJobs(project: string) {
  const client = useQueryClient();
  const jobs = useQuery({
    queryKey: ["jobs", project],
    queryFn: () => data(api.GET("/api/jobs/", ofProject(project))),
    refetchInterval: (query) => {
      const now = query.state.data?.filter(isUnderWay) ?? [];
      // Somebody waits before a preview: it is looked at more closely than what is drawn beside one's work.
      return now.some((job) => job.kind === "plot") ? 100 : now.length ? 400 : 6_000;
    },
  });
  // A job may begin and end between two looks; so it is the ended ones that are remembered.
  const known = useRef<ReadonlySet<string> | null>(null);
  useEffect(() => {
    if (!jobs.data) return;
    // What was plotted has changed no row.
    const ended = jobs.data.filter((job) => !isUnderWay(job) && job.kind !== "plot").map((job) => job.id);
    const news = known.current !== null && ended.some((id) => !known.current?.has(id));
    known.current = new Set(ended);
    if (news) for (const key of ["views", "viewports", "display", "model-versions"]) void client.invalidateQueries({ queryKey: [key] });
  }, [client, jobs.data]);
  return jobs;
}
