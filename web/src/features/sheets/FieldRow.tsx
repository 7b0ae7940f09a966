/**
 * One field of the title block: what it says, where that comes from, and whether it is overridden on this
 * sheet.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Field, Sheet } from "../../api/client";
import { useDerived } from "../../api/sheets";
import { FigureField } from "../../components/FigureField";
import { colours } from "../../theme/theme";
import type { Edits } from "./sheetCommands";
import { inSentence, t } from "../../words/words";
import { said } from "../../words/said";

interface Props {
  field: Field;
  sheet: Sheet;
  edits: Edits;
  /** Where it is alone, what its value comes from is said in full. */
  alone?: boolean;
  onProject: () => void;
}

const WHENCE = {
  project: t("The same on every sheet of the project. What you type here applies to this sheet only."),
  derived: t("Filled in automatically. What you type here applies to this sheet only."),
  sheet: "",
} as const;

export function FieldRow({ field, sheet, edits, alone = false, onProject }: Props) {
  const { data: derived = {} } = useDerived(sheet.id);
  const { key } = field;
  const caption = said(field.caption);
  const own = field.of === "sheet";
  const override = sheet.overrides[key];
  const change = (value: string) => {
    if (own)
      return void edits.changeSheet(
        sheet,
        { [key]: value },
        t("{caption} of {number}", { caption: inSentence(caption), number: sheet.number }),
      );
    const { [key]: _, ...others } = sheet.overrides;
    void edits.changeSheet(
      sheet,
      { overrides: value === derived[key] ? others : { ...others, [key]: value } },
      t("{caption} on {number} alone", { caption: inSentence(caption), number: sheet.number }),
    );
  };
  const asDerived = () => {
    const { [key]: _, ...others } = sheet.overrides;
    void edits.changeSheet(
      sheet,
      { overrides: others },
      t("{caption} as on other sheets", { caption: inSentence(caption) }),
    );
  };
  const value = own ? (sheet[key as "title"] ?? "") : (override ?? derived[key] ?? "");
  return (
    <Box>
      <Box
        sx={{
          display: "flex",
          alignItems: "flex-end",
          gap: 0.5,
          ...(override !== undefined ? { "& input": { fontWeight: 650, color: colours.rust } } : {}),
        }}
      >
        <FigureField label={caption} width="100%" value={value} onCommit={change} />
        {override !== undefined && (
          <Button
            onClick={asDerived}
            title={t("Show {which} again, as on other sheets", {
              which: derived[key] ? `“${derived[key]}”` : t("nothing"),
            })}
            sx={{ minWidth: 0, px: 0.75, whiteSpace: "nowrap" }}
          >
            {t("Restore")}
          </Button>
        )}
      </Box>
      {alone && WHENCE[field.of] && (
        <Box sx={{ fontSize: 12, color: "text.secondary", mt: 0.75, lineHeight: 1.35 }}>
          {WHENCE[field.of]}
        </Box>
      )}
      {alone && field.of === "project" && (
        <Button variant="outlined" onClick={onProject} sx={{ mt: 1 }}>
          {t("Change it on all sheets…")}
        </Button>
      )}
    </Box>
  );
}
