/** What can be done to several sheets that are chosen in the register. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Sheet } from "../../api/client";
import { TitledDialog } from "../../components/TitledDialog";
import { colours } from "../../theme/theme";
import type { Edits } from "./sheetCommands";
import { t } from "../../words/words";

/** What of a title block is the same on many sheets. */
const TOGETHER = [
  ["status", t("Status")],
  ["purpose", t("Purpose")],
  ["creator", t("Drawn by")],
  ["drawn_on", t("Drawn on")],
  ["checker", t("Checked by")],
  ["checked_on", t("Checked on")],
  ["approver", t("Approved by")],
  ["approved_on", t("Approved on")],
  ["supplementary_title", t("Supplementary title")],
  ["discipline", t("Discipline")],
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
      aria-label={t("Chosen sheets")}
      sx={{ px: 1, py: 0.75, bgcolor: colours.sandPale, borderTop: `1px solid ${colours.sandDeep}` }}
    >
      <Box sx={{ display: "flex", alignItems: "center", fontSize: 12, fontWeight: 650 }}>
        <Box sx={{ flex: 1 }}>{t("{count} sheets chosen", { count: sheets.length })}</Box>
        <Button onClick={onRelease} sx={small}>
          {t("Release")}
        </Button>
      </Box>
      <Box sx={{ display: "flex", gap: 0.5 }}>
        <Button variant="outlined" onClick={() => onPlot(sheets.map((s) => s.id))} sx={small}>
          {t("Plot")}
        </Button>
        <Button variant="outlined" onClick={() => setChanging(true)} sx={small}>
          {t("Change…")}
        </Button>
        <Button
          variant="outlined"
          onClick={() => {
            void edits.deleteSheets(sheets);
            onRelease();
          }}
          sx={small}
        >
          {t("Delete")}
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
      title={t("Change {count} sheets", { count: sheets.length })}
      text={t("Only the fields that you type in are changed.")}
      onClose={onClose}
      onSubmit={change}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button type="submit" variant="contained">
            {t("Change")}
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
              placeholder={now === null ? t("several") : ""}
              onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
            />
          );
        })}
      </Box>
    </TitledDialog>
  );
}
