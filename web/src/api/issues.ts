/** Issues, recipients and comparisons, as the server has them. */
import { useQuery } from "@tanstack/react-query";
import { api, type Comparison, data, type Issue, type Recipient } from "./client";
import { ofProject } from "./queryClient";
import { isActive } from "./jobs";
import { watched } from "./pace";
import { consistent } from "./writing";

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
