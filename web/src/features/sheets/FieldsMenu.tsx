/** All that a title block can say of a sheet, whether its template shows it or not. */
import Box from "@mui/material/Box";
import type { Field, Sheet } from "../../api/client";
import { PopUp } from "../../components/PopUp";
import type { Edits } from "./sheetCommands";
import { FieldRow } from "./FieldRow";
import { t } from "../../words/words";

const GROUPS = [
  ["sheet", t("Of this sheet")],
  ["project", t("Of the project")],
  ["derived", t("Filled in automatically")],
] as const;

export function FieldsMenu({
  fields,
  sheet,
  edits,
  onProject,
}: {
  fields: readonly Field[];
  sheet: Sheet;
  edits: Edits;
  onProject: () => void;
}) {
  const over = Object.keys(sheet.overrides).length;
  return (
    <PopUp
      button={over ? t("{over} overridden", { over }) : t("All fields")}
      name={t("Fields of this sheet")}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "repeat(3, 226px)", columnGap: 2.5, p: 2 }}>
        {GROUPS.map(([of, title]) => (
          <Box key={of} role="group" aria-label={title}>
            <Box sx={{ fontSize: 12.5, fontWeight: 650, mb: 0.25 }}>{title}</Box>
            {fields
              .filter((f) => f.of === of)
              .map((f) => (
                <FieldRow key={f.key} field={f} sheet={sheet} edits={edits} onProject={onProject} />
              ))}
            {of !== "sheet" && (
              <Box sx={{ fontSize: 12, color: "text.secondary", mt: 1, lineHeight: 1.35 }}>
                {t("What you type here applies to this sheet only, and is marked on the board.")}
              </Box>
            )}
          </Box>
        ))}
      </Box>
    </PopUp>
  );
}
