/** What a sheet is composed with: its template, and the pen table that it is drawn with. */
import type { Sheet, Template } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { t } from "../../words/words";
import type { Edits } from "./sheetCommands";

interface Props {
  sheet: Sheet;
  edits: Edits;
  width: number;
}

type Choices = readonly (readonly [key: string, name: string])[];

/** One that is not among the choices, for it cannot be read, is shown as none. */
const among = (choices: Choices, key: string | null | undefined) =>
  choices.some(([known]) => known === key) ? (key ?? "") : "";

export function TemplateField({
  sheet,
  edits,
  width,
  templates,
}: Props & { templates: readonly Template[] }) {
  const choices = templates.map((each) => [each.id, each.name] as const);
  return (
    <ChoiceField
      label={t("Template")}
      width={width}
      value={among(choices, sheet.template)}
      choices={choices}
      onChoose={(template) =>
        void edits.changeSheet(sheet, { template }, t("template of {number}", { number: sheet.number }))
      }
    />
  );
}

export function PenTableField({ sheet, edits, width, penTables }: Props & { penTables: Choices }) {
  return (
    <ChoiceField
      label={t("Drawn with")}
      width={width}
      value={among(penTables, sheet.pen_table)}
      choices={[["", t("Set’s pens")], ...penTables]}
      onChoose={(key) =>
        void edits.changeSheet(
          sheet,
          { pen_table: key || null },
          t("pen table of {number}", { number: sheet.number }),
        )
      }
    />
  );
}
