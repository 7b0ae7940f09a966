/** The ledge for the sheet itself: its paper, and what its title block says. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Sheet, Stock, Template } from "../../api/client";
import { useDesk } from "../../board/desk";
import { ChoiceField } from "../../parts/ChoiceField";
import { ComboField } from "../../parts/ComboField";
import { FigureField } from "../../parts/FigureField";
import { Group, Ledge } from "../../parts/Ledge";
import { More } from "../../parts/More";
import { colours } from "../../theme/theme";
import type { Edits } from "./edits";
import { FieldsMenu } from "./FieldsMenu";
import { RevisionsMenu } from "./RevisionsMenu";

const NOTHING: never[] = [];

const PAPERS = [
  ...["A0", "A1", "A2", "A3", "A4"].map((value) => ({ value, group: "ISO" })),
  ...["ANSI A", "ANSI B", "ANSI C", "ANSI D", "ANSI E"].map((value) => ({ value, group: "ANSI" })),
  ...["Arch A", "Arch B", "Arch C", "Arch D", "Arch E"].map((value) => ({ value, group: "Architectural" })),
];
const DEVICES = [
  ["file", "PDF file"],
  ["office", "Office printer, to A3"],
  ["roll", "Roll plotter, to A0"],
] as const;
/** What a pattern of numbers may name, shown where the project's does. */
const NUMBERED = [
  ["discipline", "Discipline", 62],
  ["sheet_type", "Type", 44],
] as const;
const TITLED = [
  ["number", "Number", 74],
  ["title", "Title", 190],
  ["supplementary_title", "Supplementary title", 176],
] as const;
const SIGNED = [
  ["status", "Status", 92],
  ["creator", "Drawn by", 76],
  ["approver", "Approved by", 76],
] as const;

interface Props {
  sheet: Sheet;
  edits: Edits;
  /** How the project's sheets are numbered. */
  pattern: string;
  /** Viewports that reach beyond the paper. */
  beyond: string[];
  stock: Stock | undefined;
  templates: readonly Template[];
  /** Edit the template of this sheet. */
  onTemplate: () => void;
  onProject: () => void;
  onPlot: (all: boolean) => void;
  onDuplicate: (contents: boolean) => void;
  onRenumber: () => void;
}

export function SheetLedge({ sheet, edits, pattern, stock, templates, beyond, onTemplate, onProject, onPlot, onDuplicate, onRenumber }: Props) {
  const [x = 0, y = 0, , height = 0] = sheet.free_area;
  const known = [...(stock?.templates ?? []).map((t) => [t.key, t.name] as const), ...templates.map((t) => [t.id, t.name] as const)];
  const upperLeft = { x, y: y + height };
  return (
    <Ledge label="Ledge: sheet">
      <Group name="Title block">
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75 }}>
          {[[...NUMBERED.filter(([key]) => pattern.includes(`{${key === "sheet_type" ? "type" : key}`)), ...TITLED], SIGNED].map((row, k) => (
            <Box key={k} sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
              {row.map(([key, label, width]) => (
                <FigureField
                  key={key}
                  label={label}
                  width={width}
                  value={sheet[key]}
                  onCommit={(value) => void edits.changeSheet(sheet, { [key]: value }, `${label.toLowerCase()} of ${sheet.number}`)}
                />
              ))}
              {k === 1 && (
                <>
                  <RevisionsMenu sheet={sheet} edits={edits} />
                  <FieldsMenu fields={stock?.fields ?? NOTHING} sheet={sheet} edits={edits} onProject={onProject} />
                  <Tooltip title="Project, client, site and practice: the same on every sheet">
                    <Button variant="outlined" onClick={onProject} sx={{ minWidth: 0, px: 1 }}>
                      Project…
                    </Button>
                  </Tooltip>
                </>
              )}
            </Box>
          ))}
        </Box>
      </Group>
      <Group name="Paper">
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75 }}>
          <ComboField
            label="Size, or mm x mm"
            width={112}
            value={sheet.paper}
            choices={PAPERS}
            onChoose={(paper) => void edits.changeSheet(sheet, { paper }, `paper of ${sheet.number}`)}
          />
          <ChoiceField
            label="Orientation"
            width={112}
            value={sheet.orientation}
            choices={[
              ["landscape", "Landscape"],
              ["portrait", "Portrait"],
            ]}
            onChoose={(way) => void edits.changeSheet(sheet, { orientation: way as Sheet["orientation"] }, `orientation of ${sheet.number}`)}
          />
        </Box>
        <Box sx={{ alignSelf: "flex-start", display: "flex", flexDirection: "column", gap: 0.75 }}>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <ChoiceField
              label="Template"
              width={172}
              value={known.some(([key]) => key === sheet.template) ? sheet.template : ""}
              choices={known}
              onChoose={(template) => void edits.changeSheet(sheet, { template }, `template of ${sheet.number}`)}
            />
            <Tooltip title={templates.some((t) => t.id === sheet.template) ? "Edit this template, for all its sheets" : "Make this template our own and edit it, for all its sheets"}>
              <Button variant="outlined" onClick={onTemplate} sx={{ minWidth: 0, px: 1 }}>
                Edit…
              </Button>
            </Tooltip>
          </Box>
          <ChoiceField
            label="Plotted on"
            width={176}
            value={sheet.device ?? "file"}
            choices={DEVICES}
            onChoose={(device) => void edits.changeSheet(sheet, { device: device as Sheet["device"] }, `device of ${sheet.number}`)}
          />
          {sheet.unprintable?.too_large && <Box sx={{ mt: 1, width: 176, fontSize: 11.5, lineHeight: 1.3, color: colours.rust }}>This sheet is too large for it. Take another device or a smaller paper.</Box>}
        </Box>
      </Group>
      <Box sx={{ ml: "auto", pt: 2.5, display: "flex", flexDirection: "column", gap: 1 }}>
        <Box sx={{ display: "flex", gap: 1 }}>
          <Tooltip title="This sheet as a PDF, looked at before it is taken (P)">
            <Button variant="contained" onClick={() => onPlot(false)}>
              Plot sheet
            </Button>
          </Tooltip>
          <Button variant="outlined" onClick={() => onPlot(true)}>
            Plot set
          </Button>
        </Box>
        <Box sx={{ display: "flex", gap: 0.5, justifyContent: "flex-end" }}>
          {beyond.length > 0 && (
            <Tooltip title="They keep their scale and their place from the title block; move or crop them, or take a larger paper">
              <Button onClick={() => useDesk.getState().select(beyond)} sx={{ minWidth: 0, px: 1, color: colours.rust }}>
                {beyond.length} off paper
              </Button>
            </Tooltip>
          )}
          <More
            deeds={[
              ["Duplicate with its viewports", () => onDuplicate(true)],
              ["Duplicate without them", () => onDuplicate(false)],
              ["Draw an outline for a view", () => useDesk.setState({ outline: { of: null, points: [] } })],
              ["Renumber from here on", onRenumber],
              sheet.drawing_list
                ? ["Take the list of drawings away", () => void edits.changeSheet(sheet, { drawing_list: null }, "take the list of drawings away")]
                : ["Place the list of drawings", () => void edits.changeSheet(sheet, { drawing_list: upperLeft }, "place the list of drawings")],
              ["Delete sheet", () => void edits.deleteSheet(sheet)],
            ]}
          />
        </Box>
      </Box>
    </Ledge>
  );
}
