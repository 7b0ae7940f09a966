/** What can be done to several sheets that are chosen in the register. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Sheet } from "../../api/client";
import { TitledDialog } from "../../components/TitledDialog";
import { colours } from "../../theme/theme";
import type { Edits } from "./sheetCommands";

/** What of a title block is the same on many sheets. */
const TOGETHER = [
  ["status", "Status"],
  ["purpose", "Purpose"],
  ["creator", "Drawn by"],
  ["drawn_on", "Drawn on"],
  ["checker", "Checked by"],
  ["checked_on", "Checked on"],
  ["approver", "Approved by"],
  ["approved_on", "Approved on"],
  ["supplementary_title", "Supplementary title"],
  ["discipline", "Discipline"],
] as const;
type Field = (typeof TOGETHER)[number][0];

interface Props {
  sheets: Sheet[];
  edits: Edits;
  onPlot: (sheets: string[]) => void;
  onRelease: () => void;
}

export function SeveralSheets({ sheets, edits, onPlot, onRelease }: Props) {
  const [changing, setChanging] = useState(false);
  const small = { minWidth: 0, minHeight: 24, px: 0.75, fontSize: 12 };
  return (
    <Box
      role="region"
      aria-label="Chosen sheets"
      sx={{ px: 1, py: 0.75, bgcolor: colours.sandPale, borderTop: `1px solid ${colours.sandDeep}` }}
    >
      <Box sx={{ display: "flex", alignItems: "center", fontSize: 12, fontWeight: 650 }}>
        <Box sx={{ flex: 1 }}>{sheets.length} sheets chosen</Box>
        <Button onClick={onRelease} sx={small}>
          Release
        </Button>
      </Box>
      <Box sx={{ display: "flex", gap: 0.5 }}>
        <Button variant="outlined" onClick={() => onPlot(sheets.map((s) => s.id))} sx={small}>
          Plot
        </Button>
        <Button variant="outlined" onClick={() => setChanging(true)} sx={small}>
          Change…
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            void edits.deleteSheets(sheets);
            onRelease();
          }}
          sx={small}
        >
          Delete
        </Button>
      </Box>
      {changing && <ChangeTogether sheets={sheets} edits={edits} onClose={() => setChanging(false)} />}
    </Box>
  );
}

function ChangeTogether({
  sheets,
  edits,
  onClose,
}: Pick<Props, "sheets" | "edits"> & { onClose: () => void }) {
  const [typed, setTyped] = useState<Partial<Record<Field, string>>>({});
  const alike = (field: Field) => {
    const found = new Set(sheets.map((sheet) => sheet[field]));
    return found.size === 1 ? (sheets[0]?.[field] ?? "") : null;
  };
  const change = () => {
    if (Object.keys(typed).length) void edits.changeSheets(sheets, typed);
    onClose();
  };
  return (
    <TitledDialog
      title={`Change ${sheets.length} sheets`}
      text="Only the fields that you type in are changed."
      onClose={onClose}
      onSubmit={change}
      foot={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Change
          </Button>
        </>
      }
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.75, pt: 0.75 }}>
        {TOGETHER.map(([field, label]) => {
          const now = alike(field);
          return (
            <TextField
              key={field}
              label={label}
              value={typed[field] ?? now ?? ""}
              placeholder={now === null ? "several" : ""}
              onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
            />
          );
        })}
      </Box>
    </TitledDialog>
  );
}
