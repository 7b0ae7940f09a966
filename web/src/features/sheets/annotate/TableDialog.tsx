/** The cells of a free table: typed, pasted from a spreadsheet, added, taken away, merged. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { TableSpec } from "../../../api/client";
import { TitledDialog } from "../../../components/TitledDialog";
import { colours } from "../../../theme/theme";
import { pasted, withColumn, withMerged, withRow, withoutColumn, withoutRow, type Grid } from "./tableCells";
import { t } from "../../../words/words";

interface Props {
  spec: TableSpec;
  onClose: () => void;
  onDone: (to: Grid) => void;
}

export function TableDialog({ spec, onClose, onDone }: Props) {
  const [grid, setGrid] = useState<Grid>({ cells: spec.cells, merged: spec.merged, widths: spec.widths });
  const [at, setAt] = useState<readonly [number, number]>([0, 0]);
  const [to, setTo] = useState<readonly [number, number]>([0, 0]);
  const [row, column] = at;
  const chosen = (r: number, c: number) =>
    r >= Math.min(at[0], to[0]) &&
    r <= Math.max(at[0], to[0]) &&
    c >= Math.min(at[1], to[1]) &&
    c <= Math.max(at[1], to[1]);
  const hidden = (r: number, c: number) =>
    grid.merged.some(
      (m) =>
        r >= m.row && r < m.row + m.rows && c >= m.column && c < m.column + m.columns &&
        !(r === m.row && c === m.column),
    ); // prettier-ignore
  const setCell = (r: number, c: number, text: string) =>
    setGrid((g) => ({ ...g, cells: g.cells.map((line, n) => (n === r ? line.with(c, text) : line)) }));
  return (
    <TitledDialog
      title={t("Cells of the table")}
      text={
        <>
          {t(
            "Paste from a spreadsheet into any cell. “=sum” gives the sum of the figures above it. " +
              "Shift and click choose several to be merged.",
          )}
        </>
      }
      width="lg"
      fits
      onClose={onClose}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button variant="contained" onClick={() => onDone(grid)}>
            {t("Save")}
          </Button>
        </>
      }
    >
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
        <Button variant="outlined" onClick={() => setGrid(withRow(grid, row + 1))}>
          {t("Row below")}
        </Button>
        <Button variant="outlined" onClick={() => setGrid(withColumn(grid, column + 1))}>
          {t("Column right")}
        </Button>
        <Button
          variant="outlined"
          disabled={grid.cells.length < 2}
          onClick={() => setGrid(withoutRow(grid, row))}
        >
          {t("Delete row")}
        </Button>
        <Button
          variant="outlined"
          disabled={(grid.cells[0]?.length ?? 0) < 2}
          onClick={() => setGrid(withoutColumn(grid, column))}
        >
          {t("Delete column")}
        </Button>
        <Button variant="outlined" onClick={() => setGrid(withMerged(grid, at, to))}>
          {t("Merge or divide")}
        </Button>
      </Box>
      <Box sx={{ overflow: "auto", maxHeight: "56vh", border: `1px solid ${colours.sandDeep}` }}>
        <Box component="table" sx={{ borderCollapse: "collapse" }}>
          <tbody>
            {grid.cells.map((line, r) => (
              <tr key={r}>
                {line.map((cell, c) => (
                  <Box
                    component="td"
                    key={c}
                    sx={{
                      border: `1px solid ${colours.sandDeep}`,
                      p: 0,
                      bgcolor: chosen(r, c) ? colours.rustPale : hidden(r, c) ? colours.sand : colours.paper,
                    }}
                  >
                    <Box
                      component="input"
                      aria-label={t("Row {r}, column {c}", { r: r + 1, c: c + 1 })}
                      value={cell}
                      disabled={hidden(r, c)}
                      maxLength={500}
                      spellCheck
                      onPointerDown={(event: React.PointerEvent) => {
                        setTo([r, c]);
                        if (event.shiftKey) event.preventDefault();
                        else setAt([r, c]);
                      }}
                      onFocus={() => {
                        setAt([r, c]);
                        setTo([r, c]);
                      }}
                      onChange={(event: React.ChangeEvent<HTMLInputElement>) =>
                        setCell(r, c, event.target.value)
                      }
                      onPaste={(event: React.ClipboardEvent) => {
                        const text = event.clipboardData.getData("text/plain");
                        if (!/[\t\n]/.test(text)) return;
                        event.preventDefault();
                        setGrid(pasted(grid, [r, c], text));
                      }}
                      sx={{
                        width: 118,
                        border: 0,
                        bgcolor: "transparent",
                        font: "inherit",
                        fontSize: 13,
                        fontWeight: r === 0 && spec.header ? 650 : 400,
                        px: 0.75,
                        py: "4px",
                        "&:focus": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
                      }}
                    />
                  </Box>
                ))}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
    </TitledDialog>
  );
}
