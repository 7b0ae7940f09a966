/** What a schedule lists, and how; and what it lists as a file. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { Annotation, ModelVersion, ScheduleSpec } from "../../../api/client";
import { useElementSources } from "../../../api/buildings";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import type { AnnotationEdits } from "./annotationCommands";
import { LISTED } from "./pieceChoices";
import { ScheduleDialog } from "./ScheduleDialog";
import { TextStyleField } from "./TextStyleField";

interface Props {
  piece: Annotation & { spec: ScheduleSpec };
  version: ModelVersion | undefined;
  edits: AnnotationEdits;
}

const NOTHING: never[] = [];
/** What belongs to what is listed, and is given up when something else is. */
const AS_USUAL = { columns: [], where: [], group: "", sort: [], counted: false, classes: [] };

export function ScheduleFields({ piece, version, edits }: Props) {
  const { spec } = piece;
  const [asking, setAsking] = useState(false);
  const { data: sources = NOTHING } = useElementSources(piece.project);
  const change = (to: Partial<ScheduleSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const storeys = (version?.facts.storeys ?? []).map((s) => [s.name, s.name] as const);
  const ofBuilding = spec.of !== "notes" && spec.of !== "symbols";
  return (
    <>
      <Group name="Schedule">
        <Rows>
          <ChoiceField
            label="Lists"
            width={160}
            value={spec.of}
            choices={LISTED}
            onChoose={(of) => change({ ...AS_USUAL, of: of as ScheduleSpec["of"] }, "what a schedule lists")}
          />
          <ChoiceField
            label="Of the storey"
            width={160}
            value={ofBuilding && storeys.some(([key]) => key === spec.storey) ? spec.storey : ""}
            choices={ofBuilding ? [["", "All storeys"], ...storeys] : [["", "–"]]}
            onChoose={(storey) => change({ storey }, "storey of a schedule")}
          />
        </Rows>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.75 }}>
            <FigureField
              label="Heading"
              width={168}
              value={spec.title}
              placeholder="what it lists"
              onCommit={(title) => change({ title }, "heading of a schedule")}
            />
            <FigureField
              label="Rows in a column"
              number
              width={104}
              value={spec.split ? String(spec.split) : ""}
              placeholder="all"
              onCommit={(rows) =>
                change({ split: Math.max(0, Math.round(Number(rows))) }, "split a schedule")
              }
            />
            <TextStyleField
              project={piece.project}
              named={spec.named}
              onChoose={(named) => change({ named }, "text style of a schedule")}
            />
          </Box>
          <Buttons>
            <Button variant="contained" onClick={() => setAsking(true)}>
              Columns and rows…
            </Button>
            {(spec.of === "doors" || spec.of === "windows") && (
              <ToggleButton
                on={spec.pictures}
                name="Pictures"
                tip="Each with its own elevation at 1:100"
                onToggle={() => change({ pictures: !spec.pictures }, "pictures in a schedule")}
              />
            )}
            <ToggleButton
              on={spec.feet}
              name="Feet"
              tip="Sizes in feet and inches, and not in millimetres"
              onToggle={() => change({ feet: !spec.feet }, "unit of a schedule")}
            />
            <Tooltip title="What it lists, for a spreadsheet">
              <Button variant="outlined" component="a" href={`/api/annotations/${piece.id}/csv/`} download>
                CSV
              </Button>
            </Tooltip>
            <Tooltip title="The same as a workbook">
              <Button variant="outlined" component="a" href={`/api/annotations/${piece.id}/xlsx/`} download>
                XLSX
              </Button>
            </Tooltip>
          </Buttons>
        </Rows>
      </Group>
      {asking && (
        <ScheduleDialog
          spec={spec}
          sources={sources}
          classes={Object.keys(version?.facts.classes ?? {})}
          onClose={() => setAsking(false)}
          onDone={(to) => {
            setAsking(false);
            change(to, "columns and rows of a schedule");
          }}
        />
      )}
    </>
  );
}
