/** The register in parts: the series of its sheets, and those that are looked for. */
import type { Sheet } from "../../api/client";

/**
 * The series of a sheet: what its number begins with, before the figures that count.
 *
 * seriesOf("A-01") is "A", seriesOf("SK 12-03") is "SK".
 */
export const seriesOf = (number: string): string => /^[\p{L}]*/u.exec(number.trim())?.[0].toUpperCase() ?? "";

export interface Run {
  series: string;
  sheets: Sheet[];
}

/** Sheets in their order, as runs of one series each. */
export function runsOf(sheets: readonly Sheet[]): Run[] {
  const runs: Run[] = [];
  for (const sheet of sheets) {
    const series = seriesOf(sheet.number ?? "");
    const last = runs.at(-1);
    if (last?.series === series) last.sheets.push(sheet);
    else runs.push({ series, sheets: [sheet] });
  }
  return runs;
}

/** Whether a sheet is looked for: each word stands in its number or its title. */
export function isSought(sheet: Sheet, words: string): boolean {
  const own = `${sheet.number ?? ""} ${sheet.title}`.toLocaleLowerCase();
  return words
    .toLocaleLowerCase()
    .split(/\s+/)
    .every((word) => own.includes(word));
}

/**
 * The sheets that are chosen after one was clicked: Shift takes all from the last one clicked, Ctrl takes one
 * more or one less, a plain click none.
 *
 * @param shown in their order.
 */
export function chosenBy(
  { shiftKey, ctrlKey, metaKey }: Pick<MouseEvent, "shiftKey" | "ctrlKey" | "metaKey">,
  clicked: string,
  from: string,
  shown: readonly string[],
  chosen: ReadonlySet<string>,
): ReadonlySet<string> {
  if (shiftKey) {
    const ends = [shown.indexOf(from), shown.indexOf(clicked)].sort((a, b) => a - b);
    return new Set(shown.slice(Math.max(ends[0] ?? 0, 0), (ends[1] ?? 0) + 1));
  }
  if (!ctrlKey && !metaKey) return new Set();
  const now = new Set(chosen.size ? chosen : [from]);
  if (!now.delete(clicked)) now.add(clicked);
  return now;
}

/**
 * Where in the whole register a sheet comes to lie that is dropped among those that are shown.
 *
 * @param before the sheet that it is dropped before; none for the end.
 */
export function placeAmong(sheets: readonly Sheet[], moved: string, before: string | undefined): number {
  const from = sheets.findIndex((s) => s.id === moved);
  const to = before === undefined ? sheets.length : sheets.findIndex((s) => s.id === before);
  return to > from ? to - 1 : to;
}
