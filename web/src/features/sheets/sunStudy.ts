/** A view in the sun of several hours: what changes of its viewport, and of its copies beside it. */
import type { Appearance, Viewport } from "../../api/client";
import type { ViewportChange } from "./contents";

export type Sun = Pick<Appearance["light"], "month" | "day" | "latitude">;

/** Between two drawings beside each other, and between rows of them with their titles; paper mm. */
const [BESIDE, BELOW] = [12, 26] as const;
const MAX_HOURS = 12;

/**
 * Hours as they were typed: `9, 12:30 15` is [9, 12.5, 15]; null where one is none, or there are none or too
 * many.
 */
export function hoursOf(typed: string): number[] | null {
  const words = typed.split(/[\s,;]+/).filter(Boolean);
  const hours = words.map((word) => {
    const [, hour = "", minute = "0"] = /^(\d{1,2})(?::(\d{2}))?$/.exec(word) ?? [];
    const value = Number(hour) + Number(minute) / 60;
    return hour && Number(minute) < 60 && value <= 24 ? value : NaN;
  });
  return hours.length && hours.length <= MAX_HOURS && hours.every(Number.isFinite) ? hours : null;
}

/** The viewport at the first hour and its copies at the others, as many beside each other as fit. */
export function studyOf(
  viewport: Viewport,
  appearance: Appearance,
  sun: Sun,
  hours: readonly number[],
  paper: number,
): ViewportChange[] {
  const across = Math.max(1, Math.floor((paper - viewport.x + BESIDE) / (viewport.width + BESIDE)));
  return hours.map((hour, k) => ({
    x: viewport.x + (k % across) * (viewport.width + BESIDE),
    y: viewport.y - Math.floor(k / across) * (viewport.height + BELOW),
    appearance: {
      ...appearance,
      show: appearance.show === "lines" ? "shaded" : appearance.show,
      light: { ...appearance.light, ...sun, source: "sun", hour },
    },
  }));
}

/** How many of the viewports of a study lie on the paper; the others would begin below it. */
export const howManyFit = (study: readonly ViewportChange[]) => study.filter((to) => (to.y ?? 0) >= 0).length;
