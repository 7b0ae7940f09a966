/** What a schedule lists, and how; and what it lists as a file. */
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Annotation, ModelVersion, ScheduleSpec } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Rows } from "../../components/Ledge";
import { ToggleButton } from "../../components/ToggleButton";
import type { AnnotationEdits } from "./annotationCommands";
import { LISTED } from "./pieceChoices";

interface Props {
  piece: Annotation & { spec: ScheduleSpec };
  version: ModelVersion | undefined;
  edits: AnnotationEdits;
}

export function ScheduleFields({ piece, version, edits }: Props) {
  const { spec } = piece;
  const change = (to: Partial<ScheduleSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const storeys = (version?.facts.storeys ?? []).map((s) => [s.name, s.name] as const);
  return (
    <Group name="Schedule">
      <Rows>
        <ChoiceField
          label="Lists"
          width={136}
          value={spec.of}
          choices={LISTED}
          onChoose={(of) => change({ of: of as ScheduleSpec["of"] }, "what a schedule lists")}
        />
        <ChoiceField
          label="Of the storey"
          width={136}
          value={storeys.some(([key]) => key === spec.storey) ? spec.storey : ""}
          choices={[["", "All storeys"], ...storeys]}
          onChoose={(storey) => change({ storey }, "storey of a schedule")}
        />
      </Rows>
      <Rows>
        <FigureField
          label="Heading"
          width={180}
          value={spec.title}
          placeholder="what it lists"
          onCommit={(title) => change({ title }, "heading of a schedule")}
        />
        <Buttons>
          <ToggleButton
            on={spec.feet}
            name="Feet and inches"
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
  );
}
