/** Places in views: which plan new views are drawn on first, and points that are typed. */
import type { View } from "../../api/client";

/** What a plan is cut above ground level at most, mm: higher ones are of upper storeys. */
const GROUND = 2_000;

/**
 * The plan that new views are drawn on first: the lowest that is cut above ground level, not that of a cellar
 * or of the foundations; else the highest.
 */
export function groundPlan(plans: readonly View[]): View | undefined {
  const height = (view: View) => view.axes?.origin?.[2] ?? 0;
  const byHeight = plans.toSorted((a, b) => height(a) - height(b));
  return byHeight.find((v) => height(v) >= 0) ?? byHeight.findLast((v) => height(v) < GROUND);
}

/** A point as it is typed, its figures apart by commas or blanks; mm. Null where it is none. */
export function pointFrom(typed: string): [number, number, number] | null {
  const figures = typed
    .trim()
    .split(/[\s;]+|,\s+|,(?=\S)/)
    .filter(Boolean)
    .map(Number);
  const [x, y, z] = figures;
  if (figures.length !== 3 || figures.some((figure) => !Number.isFinite(figure))) return null;
  return [x ?? 0, y ?? 0, z ?? 0];
}

export const pointText = (point: readonly number[] | undefined): string =>
  (point ?? []).map((figure) => String(Math.round(figure))).join(", ");
