/** What of the lists on the screen a change elsewhere makes stale. */

/** What else depends on a kind of rows: the first part of its queries' keys. */
const DEPENDENT: Record<string, readonly string[]> = {
  sheets: ["viewports", "views", "display", "number-warnings", "checks", "revision-offers"],
  viewports: ["views", "display", "jobs", "checks", "revision-offers"],
  views: ["viewports", "display", "jobs", "checks"],
  subsets: ["views", "viewports", "display", "jobs"],
  annotations: ["display", "checks", "revision-offers"],
  touch_ups: ["display", "checks", "revision-offers"],
  listed_notes: ["display"],
  annotation_styles: ["display"],
  symbols: ["display"],
  pen_tables: ["display"],
  templates: ["display", "sheets"],
  registers: ["display", "number-warnings"],
  plot_settings: ["sheets", "plot-conflicts"],
  waivers: ["checks"],
  check_rules: ["checks"],
  comments: ["checks", "reviews"],
  issues: ["display", "revision-offers", "checks"],
  projects: ["display"],
  "model-versions": ["views", "viewports", "display", "checks", "sources"],
};

/** The first parts of the keys of all queries that are to be asked again. */
export const staleBy = (topics: readonly string[]): ReadonlySet<string> =>
  new Set(topics.flatMap((topic) => [topic, ...(DEPENDENT[topic] ?? [])]));
