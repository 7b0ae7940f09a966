/** Rows of several kinds asked for at once, for the lists that each of them is kept in. */
import { api, data } from "./client";
import { queryClient } from "./queryClient";
import type { components } from "./schema";
import { consistent } from "./writing";

type Kind = keyof components["schemas"]["RowsByKind"];

/** What is painted of a sheet, and what else its station begins with. */
export const PAINTED = ["sheets", "viewports"] as const satisfies readonly Kind[];
export const BESIDE = [
  "views",
  "annotations",
  "touch_ups",
  "templates",
  "registers",
  "pen_tables",
  "plot_settings",
  "waivers",
  "comments",
  "scans",
] as const satisfies readonly Kind[];

/**
 * Ask for those lists of a project that are neither there nor on their way; where that fails, each asks for
 * itself.
 */
export function askTogether(project: string, kinds: readonly Kind[]) {
  const wanted = kinds.filter((kind) => {
    const known = queryClient.getQueryState([kind, project]);
    return known?.data === undefined && (known?.fetchStatus ?? "idle") === "idle";
  });
  if (!wanted.length) return;
  const query = { project, kinds: wanted };
  const answer = consistent(() => data(api.GET("/api/rows/", { params: { query } })));
  for (const kind of wanted) {
    const queryKey = [kind, project];
    const queryFn = async () => (await answer)[kind];
    void queryClient.prefetchQuery({ queryKey, queryFn, retry: false }).then(() => {
      if (queryClient.getQueryState(queryKey)?.status !== "error") return;
      queryClient.removeQueries({ queryKey, exact: true, type: "inactive" });
      void queryClient.refetchQueries({ queryKey, exact: true, type: "active" });
    });
  }
}
