/** Reviews and what was said, as the server has it. */
import { useQuery } from "@tanstack/react-query";
import { api, type Comment, data, type Review, type Scan } from "./client";
import { ofProject } from "./queryClient";
import { isActive } from "./jobs";
import { watched, watchedJob } from "./pace";
import { consistent } from "./writing";

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
