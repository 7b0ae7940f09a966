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
import { t } from "../../../words/words";

interface Props {
  piece: Annotation & { spec: ScheduleSpec };
  version: ModelVersion | undefined;
  edits: AnnotationEdits;
}

const NOTHING: never[] = [];
/** What belongs to what is listed, and is given up when something else is. */
const DEFAULTS = { columns: [], where: [], group: "", sort: [], counted: false, classes: [] };

export function ScheduleFields({ piece, version, edits }: Props) {
  const { spec } = piece;
  const [asking, setAsking] = useState(false);
  const { data: sources = NOTHING } = useElementSources(piece.project);
  const change = (to: Partial<ScheduleSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const storeys = (version?.facts.storeys ?? []).map((s) => [s.name, s.name] as const);
  const ofBuilding = spec.of !== "notes" && spec.of !== "symbols";
  return (
    <>
      <Group name={t("Schedule")}>
        <Rows>
          <ChoiceField
            label={t("Lists")}
            width={160}
            value={spec.of}
            choices={LISTED}
            onChoose={(of) =>
              change({ ...DEFAULTS, of: of as ScheduleSpec["of"] }, t("what a schedule lists"))
            }
          />
          <ChoiceField
            label={t("Of the storey")}
            width={160}
            value={ofBuilding && storeys.some(([key]) => key === spec.storey) ? spec.storey : ""}
            choices={ofBuilding ? [["", t("All storeys")], ...storeys] : [["", "–"]]}
            onChoose={(storey) => change({ storey }, t("storey of a schedule"))}
          />
        </Rows>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.75 }}>
            <FigureField
              label={t("Heading")}
              width={168}
              value={spec.title}
              placeholder={t("what it lists")}
              onCommit={(title) => change({ title }, t("heading of a schedule"))}
            />
            <FigureField
              label={t("Rows in a column")}
              number
              width={104}
              value={spec.split ? String(spec.split) : ""}
              placeholder={t("all")}
              onCommit={(rows) =>
                change({ split: Math.max(0, Math.round(Number(rows))) }, t("split a schedule"))
              }
            />
            <TextStyleField
              project={piece.project}
              named={spec.named}
              onChoose={(named) => change({ named }, t("text style of a schedule"))}
            />
          </Box>
          <Buttons>
            <Button variant="contained" onClick={() => setAsking(true)}>
              {t("Columns and rows…")}
            </Button>
            {(spec.of === "doors" || spec.of === "windows") && (
              <ToggleButton
                on={spec.pictures}
                name={t("Pictures")}
                tip={t("Each with its own elevation at 1:100")}
                onToggle={() => change({ pictures: !spec.pictures }, t("pictures in a schedule"))}
              />
            )}
            <ToggleButton
              on={spec.feet}
              name={t("Feet")}
              tip={t("Sizes in feet and inches, and not in millimetres")}
              onToggle={() => change({ feet: !spec.feet }, t("unit of a schedule"))}
            />
            <Tooltip title={t("What it lists, for a spreadsheet")}>
              <Button variant="outlined" component="a" href={`/api/annotations/${piece.id}/csv/`} download>
                {t("CSV")}
              </Button>
            </Tooltip>
            <Tooltip title={t("The same as a workbook")}>
              <Button variant="outlined" component="a" href={`/api/annotations/${piece.id}/xlsx/`} download>
                {t("XLSX")}
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
            change(to, t("columns and rows of a schedule"));
          }}
        />
      )}
    </>
  );
}
