/** Rows, columns and merged cells of a free table while it is edited. */
import { describe, expect, it } from "vitest";
import {
  pasted,
  withColumn,
  withMerged,
  withRow,
  withoutColumn,
  withoutRow,
  type Grid,
} from "../src/features/sheets/annotate/tableCells";

const GRID: Grid = { cells: [["a", "b"], ["c", "d"], ["e", "f"]], merged: [], widths: [0, 30] }; // prettier-ignore

describe("a table", () => {
  it("keeps its rows equally long however it is changed", () => {
    const ways = [withRow(GRID, 1), withColumn(GRID, 2), withoutRow(GRID, 0), withoutColumn(GRID, 1)];
    for (const grid of ways) expect(new Set(grid.cells.map((row) => row.length)).size).toBe(1);
    expect(withoutColumn(GRID, 0).widths).toEqual([30]);
  });

  it("has a row and a column at least", () => {
    const one: Grid = { cells: [["a"]], merged: [], widths: [] };
    expect(withoutRow(one, 0)).toBe(one);
    expect(withoutColumn(one, 0)).toBe(one);
  });

  it("merges a box of cells, divides it again, and moves it with its rows", () => {
    const merged = withMerged(GRID, [2, 1], [1, 0]);
    expect(merged.merged).toEqual([{ row: 1, column: 0, rows: 2, columns: 2 }]);
    expect(withRow(merged, 0).merged[0]?.row).toBe(2);
    expect(withRow(merged, 2).merged[0]?.rows).toBe(3);
    expect(withoutRow(merged, 1).merged).toEqual([{ row: 1, column: 0, rows: 1, columns: 2 }]);
    expect(withMerged(merged, [1, 0], [1, 0]).merged).toEqual([]);
  });

  it("takes what is pasted, and grows where that wants room", () => {
    const grid = pasted(GRID, [2, 1], "1\t2\r\n3\t4\n");
    expect(grid.cells.map((row) => row.join("|"))).toEqual(["a|b|", "c|d|", "e|1|2", "|3|4"]);
  });
});
