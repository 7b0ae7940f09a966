/** How many findings each sheet had when the set was checked last; without those that are let stand. */
import { useMemo } from "react";
import type { Severity } from "../../api/client";
import { useChecks, useWaivers } from "../../api/queries";

export type FindingCounts = ReadonlyMap<string, Partial<Record<Severity, number>>>;

export function useFindings(project: string): FindingCounts {
  const { data: checks } = useChecks(project);
  const { data: waivers } = useWaivers(project);
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
