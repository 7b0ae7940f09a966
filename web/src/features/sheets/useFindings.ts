/** How many findings each sheet has, but for those that are let stand; checked anew while one draws. */
import { useMemo } from "react";
import type { Severity } from "../../api/client";
import { useChecks, useWaivers } from "../../api/checks";
import { useCheckedAgain } from "../../sync/useCheckedAgain";

export type FindingCounts = ReadonlyMap<string, Partial<Record<Severity, number>>>;

/** How long after a change the set is checked again: milliseconds, and so often the last check's time. */
const REST = 3_000;
const PAUSE = 5;

export function useFindings(project: string): FindingCounts {
  const { data: checks } = useChecks(project);
  const { data: waivers } = useWaivers(project);
  useCheckedAgain(project, checks, Math.max(REST, PAUSE * 1000 * (checks?.seconds ?? 0)));
  return useMemo(() => {
    const waived = new Set(waivers?.map((w) => w.finding));
    const counts = new Map<string, Partial<Record<Severity, number>>>();
    for (const { sheet, severity, key } of checks?.findings ?? []) {
      if (!sheet || waived.has(key)) continue;
      const own = counts.get(sheet) ?? {};
      counts.set(sheet, { ...own, [severity]: (own[severity] ?? 0) + 1 });
    }
    return counts;
  }, [checks, waivers]);
}
