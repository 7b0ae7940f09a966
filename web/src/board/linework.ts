/** Linework, fetched once under its key and made ready to stroke at any scale. */
import { useQueries } from "@tanstack/react-query";
import { useMemo } from "react";
import { errorOf } from "../api/client";

interface LineworkFile {
  view: { origin: [number, number, number] };
  lines: { role: string; points: [number, number, number][] }[];
  regions: { rings: [number, number][][] }[];
}

/** Paths in real millimetres: one for each line role, and one for all that is cut. */
export interface Linework {
  /** The model point that u and v are measured from. */
  origin: readonly number[];
  roles: Map<string, Path2D>;
  cut: Path2D;
}

async function fetchLinework(key: string): Promise<Linework> {
  const response = await fetch(`/api/linework/${key}/`);
  if (!response.ok) throw await errorOf(response);
  const file = (await response.json()) as LineworkFile;
  const roles = new Map<string, Path2D>();
  for (const line of file.lines) {
    let path = roles.get(line.role);
    if (!path) roles.set(line.role, (path = new Path2D()));
    trace(path, line.points);
  }
  const cut = new Path2D();
  for (const region of file.regions)
    for (const ring of region.rings) {
      trace(cut, ring);
      cut.closePath();
    }
  return { origin: file.view.origin, roles, cut };
}

function trace(path: Path2D, points: readonly (readonly number[])[]) {
  points.forEach((p, k) => {
    const [u = 0, v = 0] = p;
    if (k) path.lineTo(u, v);
    else path.moveTo(u, v);
  });
}

/** The linework of some keys; what is not there yet is missing from the map. */
export function useLinework(keys: readonly string[]): ReadonlyMap<string, Linework> {
  const unique = useMemo(() => [...new Set(keys.filter(Boolean))].sort(), [keys]);
  return useQueries({
    queries: unique.map((key) => ({
      queryKey: ["linework", key],
      queryFn: () => fetchLinework(key),
      staleTime: Infinity,
      gcTime: 600_000,
      structuralSharing: false as const,
    })),
    combine: (results) => {
      const ready = new Map<string, Linework>();
      results.forEach((result, k) => {
        const key = unique[k];
        if (key && result.data) ready.set(key, result.data);
      });
      return ready;
    },
  });
}
