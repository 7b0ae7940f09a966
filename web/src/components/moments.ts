/** Days and times as somebody prefers to read them. */
import type { Preferences } from "../api/client";
import { usePreferences } from "../stores/preferences";

type Dates = Preferences["dates"];

const pad = (figure: number) => String(figure).padStart(2, "0");

/** Days and moments in words; they change with what is preferred. */
export function useMoments() {
  const dates = usePreferences((s) => s.dates);
  return {
    dayOf: (at: string) => dayOf(at, dates),
    momentOf: (at: string) => momentOf(at, dates),
  };
}

/** A day, of a moment or of a date such as 2026-03-18: as it is, 18.03.2026 or 03/18/2026. */
export function dayOf(at: string, dates: Dates): string {
  const day = /^\d{4}-\d{2}-\d{2}$/.test(at) ? at : isoDay(new Date(at));
  const [year, month, date] = day.split("-");
  return dates === "day first"
    ? `${date}.${month}.${year}`
    : dates === "month first"
      ? `${month}/${date}/${year}`
      : day;
}

/** A day within a sentence, which is not broken at its hyphens. */
export const unbroken = (day: string): string => day.replaceAll("-", "\u2011");

/** Day and time, to the minute: 2026-03-18 14:05. */
export function momentOf(at: string, dates: Dates): string {
  const moment = new Date(at);
  return `${dayOf(isoDay(moment), dates)} ${pad(moment.getHours())}:${pad(moment.getMinutes())}`;
}

/** 2026-03-18, in this place. */
export const isoDay = (moment: Date): string =>
  `${moment.getFullYear()}-${pad(moment.getMonth() + 1)}-${pad(moment.getDate())}`;
