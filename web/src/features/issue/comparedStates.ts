/** What can be compared: sheets now, as they were issued, and as they were on earlier days. */
import type { DayState, Issue, Sheet } from "../../api/client";
import { t } from "../../words/words";

/** A state that can be compared: a sheet as it was issued, as it was on an earlier day, or as it is now. */
export interface State {
  key: string;
  name: string;
  sheet: string | null;
  kind: "issued" | "day" | "sheet";
}

export const named = ({ key, name }: State) => [key, name] as const;

/** Sheets now, each with what was issued of it and what it was on earlier days; then those that are gone. */
export function statesOf(
  issues: readonly Issue[],
  days: readonly DayState[],
  sheets: readonly Sheet[],
): State[] {
  const issued = issues.toReversed().flatMap((issue) =>
    issue.sheets.map((s) => ({
      key: s.id,
      name: t("{number} {revision} of {date}, {name}", {
        number: s.number,
        revision: s.revision,
        date: issue.date,
        name: issue.name,
      }),
      sheet: s.sheet,
      kind: "issued" as const,
    })),
  );
  const earlier = days.map((d) => ({
    key: String(d.id),
    name: t("{number} on {day}", { number: d.number, day: d.day }),
    sheet: d.sheet,
    kind: "day" as const,
  }));
  return [
    ...sheets.flatMap((s) => [
      { key: s.id, name: t("{number} now", { number: s.number }), sheet: s.id, kind: "sheet" as const },
      ...[...issued, ...earlier].filter((i) => i.sheet === s.id),
    ]),
    ...issued.filter((i) => i.sheet === null),
  ];
}
