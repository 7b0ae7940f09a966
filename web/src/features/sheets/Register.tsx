/** The register: the sheets of the set in their order. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { Sheet, Viewport } from "../../api/client";
import { SeverityMark } from "../../components/severities";
import { StateMark } from "../../components/StateMark";
import { colours } from "../../theme/theme";
import { SheetThumbnail } from "../../components/Thumbnail";
import { useBoard } from "../../stores/board";
import type { FindingCounts } from "./useFindings";

export const REGISTER_WIDTH = 204;

interface Props {
  sheets: Sheet[];
  viewports: Viewport[];
  /** What is wrong with the numbers of sheets, by their ids. */
  warnings: Record<string, string>;
  /** What the last check has found, by their ids. */
  findings: FindingCounts;
  open: string;
  onOpen: (id: string) => void;
  onAdd: () => void;
  onAddSeveral: () => void;
  onMove: (sheet: Sheet, to: number) => void;
}

export function Register({
  sheets,
  viewports,
  warnings,
  findings,
  open,
  onOpen,
  onAdd,
  onAddSeveral,
  onMove,
}: Props) {
  const [held, setHeld] = useState<{ id: string; to: number } | null>(null);
  const atEnd = held?.to === sheets.length;

  /**
   * Where in the register the sheet being dragged comes to lie: before the first whose middle is below the
   * pointer.
   */
  const placeAt = (event: { clientY: number; currentTarget: HTMLElement }) => {
    const rows = [...event.currentTarget.querySelectorAll<HTMLElement>("[data-sheet]")];
    const below = rows.findIndex(
      (row) => event.clientY < row.getBoundingClientRect().top + row.clientHeight / 2,
    );
    return below < 0 ? rows.length : below;
  };
  const drop = () => {
    const from = sheets.findIndex((s) => s.id === held?.id);
    const sheet = sheets[from];
    if (held && sheet) {
      const to = held.to > from ? held.to - 1 : held.to;
      if (to !== from) onMove(sheet, to);
    }
    setHeld(null);
  };
  return (
    <Box
      component="nav"
      aria-label="Register"
      sx={{
        width: REGISTER_WIDTH,
        flexShrink: 0,
        display: "flex",
        flexDirection: "column",
        bgcolor: "background.default",
      }}
    >
      <Box
        sx={{
          px: 1.5,
          pt: 1.25,
          pb: 0.75,
          display: "flex",
          alignItems: "baseline",
          justifyContent: "space-between",
        }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
          Register
        </Box>
        <Box sx={{ fontSize: 11.5, color: "text.secondary" }}>
          {sheets.length} {sheets.length === 1 ? "sheet" : "sheets"}
        </Box>
      </Box>
      <Box
        sx={{ flex: 1, overflowY: "auto", px: 1, pb: 1 }}
        onDragOver={(event) => {
          if (!held) return;
          event.preventDefault();
          setHeld({ id: held.id, to: placeAt(event) });
        }}
        onDrop={drop}
      >
        {sheets.map((sheet, k) => {
          const on = viewports.filter((v) => v.sheet === sheet.id);
          const outOfDate = on.some((v) => v.state === "out_of_date");
          const current = sheet.id === open;
          return (
            <ButtonBase
              key={sheet.id}
              data-sheet
              draggable
              onDragStart={(event) => {
                event.dataTransfer.effectAllowed = "move";
                setHeld({ id: sheet.id, to: k });
              }}
              onDragEnd={() => setHeld(null)}
              onClick={() => onOpen(sheet.id)}
              onKeyDown={(event) => {
                const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
                if (!by || !event.altKey || !sheets[k + by]) return;
                event.preventDefault();
                onMove(sheet, k + by);
              }}
              title={`${sheet.number} ${sheet.title}\nDrag it, or press Alt and an arrow, to move it`}
              aria-current={current ? "page" : undefined}
              aria-label={`Sheet ${sheet.number} ${sheet.title}`}
              sx={{
                display: "block",
                width: "100%",
                textAlign: "left",
                p: 0.75,
                mb: 0.5,
                borderRadius: 1,
                bgcolor: current ? colours.sand : "transparent",
                boxShadow: current ? `inset 3px 0 0 ${colours.rust}` : "none",
                opacity: held?.id === sheet.id ? 0.5 : 1,
                borderTop: `2px solid ${held?.to === k ? colours.rust : "transparent"}`,
                borderBottom: `2px solid ${atEnd && k === sheets.length - 1 ? colours.rust : "transparent"}`,
                "&:hover": { bgcolor: current ? colours.sand : colours.sandPale },
              }}
            >
              <Box sx={{ border: `1px solid ${colours.sandDeep}`, ml: 0.5 }}>
                <SheetThumbnail sheet={sheet.version ? sheet.id : ""} viewports={on} width={164} />
              </Box>
              <Box sx={{ mt: 0.5, ml: 0.5, display: "flex", gap: 0.75, alignItems: "baseline" }}>
                <Box component="span" sx={{ fontWeight: 650, fontSize: 12.5, whiteSpace: "nowrap" }}>
                  {sheet.number ?? "…"}
                </Box>
                <Box
                  component="span"
                  sx={{ fontSize: 12.5, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
                >
                  {sheet.title}
                </Box>
              </Box>
              <Box sx={{ ml: 0.5, display: "flex", gap: 1 }}>
                {outOfDate && <StateMark state="out_of_date" />}
                {(["error", "warning"] as const).map((severity) => {
                  const count = findings.get(sheet.id)?.[severity];
                  return count && <SeverityMark key={severity} severity={severity} count={count} />;
                })}
                {warnings[sheet.id] && (
                  <Box component="span" sx={{ color: colours.rust, fontSize: 11.5, fontWeight: 600 }}>
                    {warnings[sheet.id]}
                  </Box>
                )}
              </Box>
            </ButtonBase>
          );
        })}
      </Box>
      <Box sx={{ display: "flex", gap: 1, p: 1, borderTop: 1, borderColor: "divider" }}>
        <Tooltip title="Show the saved views (V)">
          <Button variant="contained" onClick={() => useBoard.setState({ rackOpen: true })} sx={{ flex: 1 }}>
            Views
          </Button>
        </Tooltip>
        <Tooltip title="Add a sheet at the end of the register">
          <Button variant="outlined" onClick={onAdd} sx={{ minWidth: 0, px: 1 }}>
            Add sheet
          </Button>
        </Tooltip>
        <Tooltip title="Add several sheets, from a list of titles">
          <Button
            variant="outlined"
            aria-label="Add several sheets"
            onClick={onAddSeveral}
            sx={{ minWidth: 0, px: 0.75 }}
          >
            …
          </Button>
        </Tooltip>
      </Box>
    </Box>
  );
}
