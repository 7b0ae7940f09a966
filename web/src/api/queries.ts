/** What the server knows, cached here; the server owns it. */
import { QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef } from "react";
import { watched, watchedJob } from "./pace";
import { consistent } from "./writing";
import {
  ApiError,
  api,
  data,
  type Annotation,
  type AnnotationStyle,
  type Checks,
  type Comment,
  type Comparison,
  type DisplayList,
  type Issue,
  type Job,
  type LibrarySymbol,
  type ListedNote,
  type NamedLineSettings,
  type PenTable,
  type PlotSettings,
  type ReceivedFile,
  type Recipient,
  type Register,
  type Review,
  type Scan,
  type TouchUp,
  type TableFile,
  type Template,
  type View,
  type Viewport,
} from "./client";

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) => count < 2 && (!(error instanceof ApiError) || error.status === 0),
    },
  },
});

const ofProject = (project: string) => ({ params: { query: { project } } });

export const useSession = () =>
  useQuery({ queryKey: ["session"], queryFn: () => data(api.GET("/api/session/")), staleTime: Infinity });
export const useProjects = () =>
  useQuery({ queryKey: ["projects"], queryFn: () => data(api.GET("/api/projects/")) });
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
/** Files that wait for an answer before they become a version. */
export const useSizeQuestions = (project: string) =>
  useQuery({
    queryKey: ["size-questions", project],
    queryFn: () => data(api.GET("/api/size-questions/", ofProject(project))),
  });
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
export const useSheets = (project: string) =>
  useQuery({
    queryKey: ["sheets", project],
    queryFn: () => consistent(() => data(api.GET("/api/sheets/", ofProject(project)))),
    refetchInterval: watched,
  });
export const useViewports = (project: string) =>
  useQuery({
    queryKey: ["viewports", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/viewports/", ofProject(project))) as Promise<Viewport[]>),
    refetchInterval: watched,
  });
export const useAnnotations = (project: string) =>
  useQuery({
    queryKey: ["annotations", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/annotations/", ofProject(project))) as Promise<Annotation[]>),
    refetchInterval: watched,
  });
export const useTouchUps = (project: string) =>
  useQuery({
    queryKey: ["touch_ups", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/touch-ups/", ofProject(project))) as Promise<TouchUp[]>),
    refetchInterval: watched,
  });
/** The notes of a project's list, by their numbers. */
export const useListedNotes = (project: string) =>
  useQuery({
    queryKey: ["listed_notes", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/listed-notes/", ofProject(project))) as Promise<ListedNote[]>),
    refetchInterval: watched,
  });
export const useAnnotationStyles = (project: string) =>
  useQuery({
    queryKey: ["annotation_styles", project],
    queryFn: () =>
      consistent(
        () => data(api.GET("/api/annotation-styles/", ofProject(project))) as Promise<AnnotationStyle[]>,
      ),
    refetchInterval: watched,
  });
/** The symbols that are built in, and the project's own. */
export const useSymbols = (project: string) =>
  useQuery({
    queryKey: ["symbols", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/symbols/", ofProject(project))) as Promise<LibrarySymbol[]>),
    refetchInterval: watched,
  });
export const useTableFiles = (project: string) =>
  useQuery({
    queryKey: ["table-files", project],
    queryFn: () => data(api.GET("/api/table-files/", ofProject(project))) as Promise<TableFile[]>,
  });
export const useReceivedFiles = (project: string) =>
  useQuery({
    queryKey: ["received-files", project],
    queryFn: () => data(api.GET("/api/received-files/", ofProject(project))) as Promise<ReceivedFile[]>,
    enabled: Boolean(project),
  });
/** What elements of the building say of themselves, beside what all have: by names for schedules and tags. */
export const useElementSources = (project: string) =>
  useQuery({
    queryKey: ["sources", project],
    queryFn: async () =>
      (await data(api.GET("/api/annotations/sources/", { params: { query: { project } } }))).names,
  });
export const useTemplates = (project: string) =>
  useQuery({
    queryKey: ["templates", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/templates/", ofProject(project))) as Promise<Template[]>),
    refetchInterval: watched,
  });
/** What a title block can say; it never changes. */
export const useFields = () =>
  useQuery({ queryKey: ["fields"], queryFn: () => data(api.GET("/api/fields/", {})), staleTime: Infinity });
/** What holds for all sheets of a project: there is one. */
export const useRegister = (project: string) =>
  useQuery({
    queryKey: ["registers", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/registers/", ofProject(project))) as Promise<Register[]>),
    refetchInterval: watched,
    select: ([register]) => register,
  });
export const usePictures = (project: string) =>
  useQuery({
    queryKey: ["pictures", project],
    queryFn: () => data(api.GET("/api/pictures/", ofProject(project))),
  });
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
export const useSheetLists = (project: string) =>
  useQuery({
    queryKey: ["sheet_lists", project],
    queryFn: () => consistent(() => data(api.GET("/api/sheet-lists/", ofProject(project)))),
    refetchInterval: watched,
  });
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
export const useRecipients = (project: string) =>
  useQuery({
    queryKey: ["recipients", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/recipients/", ofProject(project))) as Promise<Recipient[]>),
    refetchInterval: watched,
  });
/** What left the office, the oldest first. */
export const useIssues = (project: string) =>
  useQuery({
    queryKey: ["issues", project],
    queryFn: () => data(api.GET("/api/issues/", ofProject(project))) as unknown as Promise<Issue[]>,
    refetchInterval: watched,
  });
/** Reviews that were asked for, the oldest first; watched while one is being made ready. */
export const useReviews = (project: string) =>
  useQuery({
    queryKey: ["reviews", project],
    queryFn: () => data(api.GET("/api/reviews/", ofProject(project))) as unknown as Promise<Review[]>,
    refetchInterval: (query) =>
      watchedJob(query.state.data?.some((r) => !r.ready && r.job && isActive(r.job)) ?? false, 500, 8_000),
  });
/** What is said of the sheets, by its number. */
export const useComments = (project: string) =>
  useQuery({
    queryKey: ["comments", project],
    queryFn: () =>
      consistent(() => data(api.GET("/api/comments/", ofProject(project))) as unknown as Promise<Comment[]>),
    refetchInterval: watched,
  });
/** Scans of marked prints, which lie under their sheets. */
export const useScans = (project: string) =>
  useQuery({
    queryKey: ["scans", project],
    queryFn: () => consistent(() => data(api.GET("/api/scans/", ofProject(project))) as Promise<Scan[]>),
    refetchInterval: watched,
  });
/** What sheets are issued for, and how revisions are counted; it never changes. */
export const useIssueChoices = () =>
  useQuery({
    queryKey: ["issue-choices"],
    queryFn: () => data(api.GET("/api/issue-choices/")),
    staleTime: Infinity,
  });
/** Sheets as they were on earlier days, the newest first. */
export const useDayStates = (project: string) =>
  useQuery({
    queryKey: ["day-states", project],
    queryFn: () => data(api.GET("/api/day-states/", ofProject(project))),
  });
/** An issue that is being made, watched until it has ended. */
export const useIssueOrder = (id: string | null) =>
  useQuery({
    queryKey: ["issue-order", id],
    queryFn: () => data(api.GET("/api/issue-orders/{job}/", { params: { path: { job: id ?? "" } } })),
    enabled: id !== null,
    refetchInterval: (query) => (!query.state.data || isActive(query.state.data.job) ? 250 : false),
  });
export const useRemake = (id: string | null) =>
  useQuery({
    queryKey: ["remake", id],
    queryFn: () => data(api.GET("/api/remakes/{job}/", { params: { path: { job: id ?? "" } } })),
    enabled: id !== null,
    refetchInterval: (query) => (!query.state.data || isActive(query.state.data.job) ? 250 : false),
  });
/** Two states that are compared, watched until that is done. */
export const useComparison = (id: string | null) =>
  useQuery({
    queryKey: ["comparison", id],
    queryFn: () =>
      data(
        api.GET("/api/comparisons/{job}/", { params: { path: { job: id ?? "" } } }),
      ) as unknown as Promise<Comparison>,
    enabled: id !== null,
    refetchInterval: (query) => (!query.state.data || isActive(query.state.data.job) ? 200 : false),
  });
/** The next revisions of sheets, and which of them differ from what was issued. */
export const useRevisionOffers = (project: string, sheets: readonly string[], purpose: string) =>
  useQuery({
    queryKey: ["revision-offers", project, sheets, purpose],
    queryFn: () =>
      consistent(() =>
        data(api.POST("/api/revision-offers/", { body: { project, sheets: [...sheets], purpose } })),
      ),
    enabled: sheets.length > 0,
    placeholderData: (last) => last,
    // Whether a sheet differs is known once the set has been checked.
    refetchInterval: (query) => (query.state.data?.some((o) => o.differs === null) ? 700 : false),
  });
/** What pens and devices there are; it never changes. */
export const usePenParts = () =>
  useQuery({
    queryKey: ["pen-parts"],
    queryFn: () => data(api.GET("/api/pen-parts/", {})),
    staleTime: Infinity,
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
/** What is wrong with the numbers of sheets, by the sheet's id. */
export const useNumberWarnings = (project: string) =>
  useQuery({
    queryKey: ["number-warnings", project],
    queryFn: async () =>
      Object.fromEntries(
        (await data(api.GET("/api/sheets/number-warnings/", ofProject(project)))).map((w) => [
          w.sheet,
          w.message,
        ]),
      ),
    placeholderData: (last: Record<string, string> | undefined) => last,
  });
/** What every field says on a sheet where nothing is overridden. */
export const useDerived = (sheet: string) =>
  useQuery({
    queryKey: ["display", sheet, "fields"],
    queryFn: async () =>
      (await data(api.GET("/api/sheets/{id}/field-values/", { params: { path: { id: sheet } } }))).derived,
    placeholderData: (last: Record<string, string> | undefined) => last,
  });
export const useLadder = (project: string) =>
  useQuery({
    queryKey: ["ladder", project],
    queryFn: () => data(api.GET("/api/ladder/", ofProject(project))),
    placeholderData: (last) => last,
  });
export const useDisplay = (sheet: string) =>
  useQuery({
    queryKey: ["display", sheet],
    queryFn: () =>
      data(
        api.GET("/api/sheets/{id}/display/", { params: { path: { id: sheet } } }),
      ) as unknown as Promise<DisplayList>,
    placeholderData: (last) => last,
    enabled: Boolean(sheet),
  });

/** On which sheets a view stands, by their numbers in register order. */
export function usePlacedOn(project: string): (view: string) => string[] {
  const { data: sheets } = useSheets(project);
  const { data: viewports } = useViewports(project);
  return useMemo(() => {
    const order = (sheets ?? []).toSorted((a, b) => a.position - b.position);
    return (view) => {
      const ids = new Set((viewports ?? []).filter((v) => v.view === view).map((v) => v.sheet));
      return order.filter((s) => ids.has(s.id)).map((s) => s.number);
    };
  }, [sheets, viewports]);
}

export const isActive = (job: Job) => job.state === "waiting" || job.state === "running";

/** A plot, watched until it has ended. */
export const usePlot = (id: string | null) =>
  useQuery({
    queryKey: ["plot", id],
    queryFn: () => data(api.GET("/api/plots/{job}/", { params: { path: { job: id ?? "" } } })),
    enabled: id !== null,
    refetchInterval: (query) => (!query.state.data || isActive(query.state.data.job) ? 100 : false),
  });

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
