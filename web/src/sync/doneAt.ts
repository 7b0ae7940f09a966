/** Where something that was done is seen. */
import type { Kind, Step } from "./rows";

export interface Place {
  station: "sheets" | "views" | "check" | "issue";
  /** The sheet or view that it was done to; blank for none that is there. */
  subject: string;
}

/** The station at which rows are seen that stand on no sheet and in no view. */
const STATIONS: Partial<Record<Kind, Place["station"]>> = {
  views: "views",
  line_settings: "views",
  subsets: "views",
  waivers: "check",
  check_rules: "check",
  recipients: "issue",
};

type Rows = (kind: Kind) => readonly { id: string; sheet?: string | null; view?: string | null }[];

/**
 * Where the rows of some steps are, as they are now: the sheet or the view that is open, if one of them
 * belongs to it; else that of the first. A sheet that is gone is nowhere.
 */
export function doneAt(steps: readonly Step[], rows: Rows, open = ""): Place | null {
  const [first] = steps;
  if (!first) return null;
  const places = steps.flatMap((step): Place[] => {
    const { rows: kind, id, before, after } = step;
    const now = rows(kind).find((row) => row.id === id);
    const part = { ...before, ...after, ...now } as { sheet?: string | null; view?: string | null };
    const sheet = kind === "sheets" ? id : (part.sheet ?? "");
    if (rows("sheets").some((row) => row.id === sheet)) return [{ station: "sheets", subject: sheet }];
    const view = kind === "views" ? id : kind === "viewports" ? "" : (part.view ?? "");
    return rows("views").some((row) => row.id === view) ? [{ station: "views", subject: view }] : [];
  });
  const here = places.find((place) => place.subject === open);
  return here ?? places[0] ?? { station: STATIONS[first.rows] ?? "sheets", subject: "" };
}
