/** The ledge for the sheet itself: its paper, and what its title block says. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Sheet } from "../../api/client";
import { ChoiceField } from "../../parts/ChoiceField";
import { FigureField } from "../../parts/FigureField";
import { Group, Ledge } from "../../parts/Ledge";
import type { Edits } from "./edits";

const PAPERS = ["A0", "A1", "A2", "A3", "A4"] as const;
const FIELDS = [
  [
    ["number", "Number", 74],
    ["title", "Title", 190],
    ["supplementary_title", "Supplementary title", 190],
  ],
  [
    ["revision", "Revision", 62],
    ["date", "Date of issue", 92],
    ["status", "Status", 104],
    ["document_type", "Document type", 96],
    ["creator", "Drawn by", 88],
    ["approver", "Approved by", 88],
  ],
] as const;

interface Props {
  sheet: Sheet;
  edits: Edits;
  onProject: () => void;
  onPlot: (all: boolean) => void;
}

export function SheetLedge({ sheet, edits, onProject, onPlot }: Props) {
  return (
    <Ledge label="Ledge: sheet">
      <Group name="Title block">
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75 }}>
          {FIELDS.map((row, k) => (
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
              {k === 0 && (
                <Tooltip title="Project, client, site and practice: the same on every sheet">
                  <Button variant="outlined" onClick={onProject} sx={{ minWidth: 0 }}>
                    Project…
                  </Button>
                </Tooltip>
              )}
            </Box>
          ))}
        </Box>
      </Group>
      <Group name="Paper">
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.75 }}>
          <ChoiceField
            label="Size"
            width={112}
            value={sheet.paper}
            choices={PAPERS.map((p) => [p, p] as const)}
            onChoose={(paper) => void edits.changeSheet(sheet, { paper: paper as Sheet["paper"] }, `paper of ${sheet.number}`)}
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
        <Button onClick={() => void edits.deleteSheet(sheet)} sx={{ alignSelf: "flex-end" }}>
          Delete sheet
        </Button>
      </Box>
    </Ledge>
  );
}
