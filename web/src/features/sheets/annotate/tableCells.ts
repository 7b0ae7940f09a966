/** Rows, columns and merged cells of a free table while it is edited. */
import type { TableSpec } from "../../../api/client";

export type Cells = TableSpec["cells"];
export type Grid = Pick<TableSpec, "cells" | "merged" | "widths">;
type Merged = TableSpec["merged"][number];

/** With an empty row before row `at`. */
export const withRow = ({ cells, merged, widths }: Grid, at: number): Grid => ({
  cells: cells.toSpliced(
    at,
    0,
    (cells[0] ?? [""]).map(() => ""),
  ),
  merged: merged.map((m) => moved(m, "row", "rows", at, 1)),
  widths,
});

export const withColumn = ({ cells, merged, widths }: Grid, at: number): Grid => ({
  cells: cells.map((row) => row.toSpliced(at, 0, "")),
  merged: merged.map((m) => moved(m, "column", "columns", at, 1)),
  widths: widths.length > at ? widths.toSpliced(at, 0, 0) : widths,
});

/** Without a row; the last one stays. */
export const withoutRow = (grid: Grid, at: number): Grid =>
  grid.cells.length < 2
    ? grid
    : {
        ...grid,
        cells: grid.cells.toSpliced(at, 1),
        merged: grid.merged.map((m) => moved(m, "row", "rows", at, -1)).filter(isSeveral),
      };

export const withoutColumn = (grid: Grid, at: number): Grid =>
  (grid.cells[0]?.length ?? 0) < 2
    ? grid
    : {
        cells: grid.cells.map((row) => row.toSpliced(at, 1)),
        merged: grid.merged.map((m) => moved(m, "column", "columns", at, -1)).filter(isSeveral),
        widths: grid.widths.toSpliced(at, 1),
      };

const isSeveral = (m: Merged) => m.rows > 0 && m.columns > 0 && m.rows * m.columns > 1;

function moved(m: Merged, key: "row" | "column", size: "rows" | "columns", at: number, by: 1 | -1): Merged {
  if (at <= m[key] - (by < 0 ? 1 : 0)) return { ...m, [key]: m[key] + by };
  return at < m[key] + m[size] ? { ...m, [size]: m[size] + by } : m;
}

/** A box of cells as one, or apart again where it was. */
export function withMerged(grid: Grid, from: readonly [number, number], to: readonly [number, number]): Grid {
  const [row, column] = [Math.min(from[0], to[0]), Math.min(from[1], to[1])];
  const made: Merged = {
    row,
    column,
    rows: Math.abs(to[0] - from[0]) + 1,
    columns: Math.abs(to[1] - from[1]) + 1,
  };
  const rest = grid.merged.filter((m) => !meet(m, made));
  return { ...grid, merged: isSeveral(made) && rest.length === grid.merged.length ? [...rest, made] : rest };
}

const meet = (a: Merged, b: Merged) =>
  a.row < b.row + b.rows &&
  b.row < a.row + a.rows &&
  a.column < b.column + b.columns &&
  b.column < a.column + a.columns;

/** What was copied from a spreadsheet, put in from a cell on, with the rows and columns that it wants. */
export function pasted(grid: Grid, at: readonly [number, number], text: string): Grid {
  const lines = text
    .replace(/\r\n?/g, "\n")
    .replace(/\n$/, "")
    .split("\n")
    .map((line) => line.split("\t"));
  let now = grid;
  while (now.cells.length < at[0] + lines.length) now = withRow(now, now.cells.length);
  const wide = Math.max(...lines.map((line) => line.length));
  while ((now.cells[0]?.length ?? 0) < at[1] + wide) now = withColumn(now, now.cells[0]?.length ?? 0);
  const cells = now.cells.map((row, r) => row.map((cell, c) => lines[r - at[0]]?.[c - at[1]] ?? cell));
  return { ...now, cells };
}
