/** A sheet that cannot be composed: why, and what it is composed with to be chosen anew. */
import Box from "@mui/material/Box";
import type { Sheet } from "../../api/client";
import { useTemplates } from "../../api/sheets";
import { usePenTables } from "../../api/styles";
import { EmptyState } from "../../components/EmptyState";
import { said } from "../../words/said";
import type { Edits } from "./sheetCommands";
import { PenTableField, TemplateField } from "./StyleFields";

const NOTHING: never[] = [];

interface Props {
  sheet: Sheet;
  /** What the server says. */
  why: string;
  edits: Edits;
}

export function Uncomposed({ sheet, why, edits }: Props) {
  const { data: templates = NOTHING } = useTemplates(sheet.project);
  const { data: tables = NOTHING } = usePenTables(sheet.project);
  return (
    <EmptyState text={said(why)}>
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <TemplateField sheet={sheet} edits={edits} width={170} templates={templates} />
        <PenTableField
          sheet={sheet}
          edits={edits}
          width={170}
          penTables={tables.map((each) => [each.id, each.name] as const)}
        />
      </Box>
    </EmptyState>
  );
}
