/** A sheet that cannot be composed: why, and what it is composed with to be chosen anew. */
import Box from "@mui/material/Box";
import type { Sheet } from "../../api/client";
import { useTemplates } from "../../api/sheets";
import { usePenTables } from "../../api/styles";
import { ChoiceField } from "../../components/ChoiceField";
import { EmptyState } from "../../components/EmptyState";
import { said } from "../../words/said";
import { t } from "../../words/words";
import type { Edits } from "./sheetCommands";

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
  const known = (id: string | null | undefined, among: readonly { id: string }[]) =>
    among.some((each) => each.id === id) ? (id ?? "") : "";
  return (
    <EmptyState text={said(why)}>
      <Box sx={{ display: "flex", gap: 1.5 }}>
        <ChoiceField
          label={t("Template")}
          width={170}
          value={known(sheet.template, templates)}
          choices={templates.map((each) => [each.id, each.name] as const)}
          onChoose={(template) =>
            void edits.changeSheet(sheet, { template }, t("template of {number}", { number: sheet.number }))
          }
        />
        <ChoiceField
          label={t("Drawn with")}
          width={170}
          value={known(sheet.pen_table, tables)}
          choices={[["", t("Set’s pens")], ...tables.map((each) => [each.id, each.name] as const)]}
          onChoose={(key) =>
            void edits.changeSheet(
              sheet,
              { pen_table: key || null },
              t("pen table of {number}", { number: sheet.number }),
            )
          }
        />
      </Box>
    </EmptyState>
  );
}
