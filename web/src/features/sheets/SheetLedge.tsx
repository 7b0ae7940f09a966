/** The ledge for the sheet itself: its paper, and what its title block says. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { Field, Sheet, Template } from "../../api/client";
import { useProject, useSession } from "../../api/projects";
import { ChoiceField } from "../../components/ChoiceField";
import { ComboField } from "../../components/ComboField";
import { choicesOf } from "../../components/choices";
import { HistoryDialog } from "../../components/HistoryDialog";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { More } from "../../components/More";
import { ToggleButton } from "../../components/ToggleButton";
import { colours } from "../../theme/theme";
import type { Edits } from "./sheetCommands";
import { sendScan } from "./comments/sendScan";
import { FieldsMenu } from "./FieldsMenu";
import { RevisionsMenu } from "./RevisionsMenu";
import { PenTableField, TemplateField } from "./StyleFields";
import { useBoard } from "../../stores/board";
import { select } from "../../stores/selection";
import { useGesture } from "../../stores/gesture";
import { inSentence, t } from "../../words/words";
import { listCommands, signCommands } from "./sheetMenu";

const NOTHING: never[] = [];

const PAPERS = [
  ...["A0", "A1", "A2", "A3", "A4"].map((value) => ({ value, group: "ISO" })),
  ...["ANSI A", "ANSI B", "ANSI C", "ANSI D", "ANSI E"].map((value) => ({
    value,
    group: "ANSI",
  })),
  ...["Arch A", "Arch B", "Arch C", "Arch D", "Arch E"].map((value) => ({
    value,
    group: t("Architectural"),
  })),
];
const ORIENTATIONS = choicesOf<NonNullable<Sheet["orientation"]>>({
  landscape: t("Landscape"),
  portrait: t("Portrait"),
});
/** What a pattern of numbers may name, shown where the project's does. */
const NUMBERED = [
  ["discipline", t("Discipline"), 62],
  ["sheet_type", t("Type"), 44],
] as const;
const TITLED = [
  ["number", t("Number"), 74],
  ["title", t("Title"), "100%"],
  ["supplementary_title", t("Supplementary title"), "90%"],
] as const;
const SIGNED = [
  ["status", t("Status"), "50%"],
  ["creator", t("Drawn by"), "46%"],
] as const;

type Choices = readonly (readonly [key: string, name: string])[];

interface Props {
  sheet: Sheet;
  edits: Edits;
  /** How the project's sheets are numbered. */
  pattern: string;
  /** Viewports that reach beyond the paper. */
  beyond: string[];
  fields: readonly Field[];
  templates: readonly Template[];
  /** Key and name of the plot settings and the pen tables that there are. */
  plotSettings: Choices;
  penTables: Choices;
  onPens: () => void;
  /** To where sheets are plotted. */
  onIssue: () => void;
  /** Edit the template of this sheet. */
  onTemplate: () => void;
  onProject: () => void;
  onPlot: (all: boolean) => void;
  onDuplicate: (contents: boolean) => void;
  onRenumber: () => void;
}

export function SheetLedge({
  sheet,
  edits,
  pattern,
  fields,
  templates,
  plotSettings,
  penTables,
  beyond,
  onPens,
  onIssue,
  onTemplate,
  onProject,
  onPlot,
  onDuplicate,
  onRenumber,
}: Props) {
  const [history, setHistory] = useState(false);
  const { data: project } = useProject(sheet.project);
  const me = useSession().data?.username ?? "";
  const [x = 0, y = 0, , height = 0] = sheet.free_area;
  const working = useBoard((s) => s.workingColours);
  const conflicts = sheet.unprintable?.conflicts ?? NOTHING;
  const upperLeft = { x, y: y + height };
  return (
    <Ledge label={t("Ledge: sheet")}>
      <Group name={t("Title block")} grow>
        <Box
          sx={{ display: "flex", flexDirection: "column", gap: 0.5, flex: 1, minWidth: 372, maxWidth: 560 }}
        >
          {[
            [
              ...NUMBERED.filter(([key]) => pattern.includes(`{${key === "sheet_type" ? "type" : key}`)),
              ...TITLED,
            ],
            SIGNED,
          ].map((row, k) => (
            <Box
              key={k}
              sx={{
                display: "flex",
                gap: 0.5,
                alignItems: "flex-end",
                "& .MuiButton-root": { flexShrink: 0 },
              }}
            >
              {row.map(([key, label, width]) => (
                <FigureField
                  key={key}
                  label={label}
                  width={width}
                  value={sheet[key]}
                  onCommit={(value) =>
                    void edits.changeSheet(
                      sheet,
                      { [key]: value },
                      t("{label} of {number}", { label: inSentence(label), number: sheet.number }),
                    )
                  }
                />
              ))}
              {k === 1 && (
                <>
                  <RevisionsMenu sheet={sheet} edits={edits} />
                  <FieldsMenu fields={fields} sheet={sheet} edits={edits} onProject={onProject} />
                  <Tooltip title={t("Project, client, site and practice: the same on every sheet")}>
                    <Button variant="outlined" onClick={onProject} sx={{ minWidth: 0, px: 1 }}>
                      {t("Project…")}
                    </Button>
                  </Tooltip>
                </>
              )}
            </Box>
          ))}
        </Box>
      </Group>
      <Group name={t("Paper")}>
        <Rows>
          <ComboField
            label={t("Size, or mm x mm")}
            width={112}
            value={sheet.paper}
            choices={PAPERS}
            onChoose={(paper) =>
              void edits.changeSheet(sheet, { paper }, t("paper of {number}", { number: sheet.number }))
            }
          />
          <ChoiceField
            label={t("Orientation")}
            width={112}
            value={sheet.orientation}
            choices={ORIENTATIONS}
            onChoose={(way) =>
              void edits.changeSheet(
                sheet,
                { orientation: way as Sheet["orientation"] },
                t("orientation of {number}", { number: sheet.number }),
              )
            }
          />
        </Rows>
      </Group>
      <Group name={t("Template, pens, plotting")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <TemplateField sheet={sheet} edits={edits} width={138} templates={templates} />
            <Tooltip
              title={
                templates.find((each) => each.id === sheet.template)?.built_in
                  ? t("Copy this template and edit the copy, for all its sheets")
                  : t("Edit this template, for all its sheets")
              }
            >
              <Button
                variant="outlined"
                aria-label={t("Edit the template")}
                onClick={onTemplate}
                sx={{ minWidth: 0, px: 0.75 }}
              >
                {t("Edit…")}
              </Button>
            </Tooltip>
          </Box>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <PenTableField sheet={sheet} edits={edits} width={138} penTables={penTables} />
            <Tooltip title={t("Pen tables: widths, colours, patterns and hatches")}>
              <Button variant="outlined" onClick={onPens} sx={{ minWidth: 0, px: 0.75 }}>
                {t("Pens…")}
              </Button>
            </Tooltip>
          </Box>
        </Rows>
        <Rows>
          <ChoiceField
            label={t("Plotted with")}
            width={146}
            value={plotSettings.some(([key]) => key === sheet.plot_settings) ? sheet.plot_settings : ""}
            choices={plotSettings}
            onChoose={(plot_settings) =>
              void edits.changeSheet(
                sheet,
                { plot_settings },
                t("plot settings of {number}", { number: sheet.number }),
              )
            }
          />
          <Buttons>
            {conflicts.length > 0 ? (
              <Tooltip title={conflicts.join(" ")}>
                <Button onClick={onIssue} sx={{ minWidth: 0, px: 1, color: colours.rust }}>
                  {t("Cannot be plotted like this")}
                </Button>
              </Tooltip>
            ) : (
              <ToggleButton
                on={working}
                name={t("Working colours")}
                tip={t("A colour for each line role, on the board alone; paper has the pens' own (W)")}
                onToggle={() => useBoard.setState({ workingColours: !working })}
              />
            )}
          </Buttons>
        </Rows>
      </Group>
      <Box
        sx={{
          ml: "auto",
          pt: "20px",
          display: "flex",
          flexDirection: "column",
          gap: "19px",
          alignItems: "flex-end",
        }}
      >
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <Tooltip title={t("Preview this sheet as a PDF (P)")}>
            <Button variant="contained" onClick={() => onPlot(false)}>
              {t("Plot sheet")}
            </Button>
          </Tooltip>
          <More
            commands={[
              [t("Duplicate with its viewports"), () => onDuplicate(true)],
              [t("Duplicate without viewports"), () => onDuplicate(false)],
              [
                t("Draw an outline for a view"),
                () => useGesture.setState({ outline: { of: null, points: [] } }),
              ],
              [t("Renumber from here on"), onRenumber],
              ...signCommands(sheet, project, me, (values, what) => edits.changeSheet(sheet, values, what)),
              ...listCommands(sheet, upperLeft, (drawing_list, what) =>
                edits.changeSheet(sheet, { drawing_list }, what),
              ),
              [t("Lay a scan under it…"), () => sendScan(sheet.project, sheet.id)],
              [t("History…"), () => setHistory(true)],
              [t("Delete sheet"), () => void edits.deleteSheet(sheet)],
            ]}
          />
        </Box>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          {beyond.length > 0 && (
            <Tooltip title={t("They keep their scale; move or crop them, or choose a larger paper")}>
              <Button onClick={() => select(beyond)} sx={{ minWidth: 0, px: 1, color: colours.rust }}>
                {t("{count} off paper", { count: beyond.length })}
              </Button>
            </Tooltip>
          )}
          <Button variant="outlined" onClick={() => onPlot(true)}>
            {t("Plot set")}
          </Button>
        </Box>
      </Box>
      {history && (
        <HistoryDialog
          project={sheet.project}
          subject={sheet.id}
          name={sheet.number}
          onClose={() => setHistory(false)}
        />
      )}
    </Ledge>
  );
}
