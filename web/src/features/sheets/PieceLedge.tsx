/** The ledge of a piece of annotation: what it says, how it looks, where it belongs, and how it stands. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Annotation, PieceBox, Viewport } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { Buttons, Group, Ledge } from "../../components/Ledge";
import { NO_POINTS, useAnnotating } from "../../stores/annotating";
import { colours } from "../../theme/theme";
import { KIND_NAMES, type AnnotationEdits } from "./annotationCommands";
import { CloudFields, DimensionFields, LevelFields, NoteFields, TagFields } from "./PieceFields";
import { ScheduleFields } from "./ScheduleFields";
import type { Edits } from "./sheetCommands";
import type { SheetSet } from "./useSet";

interface Props {
  piece: Annotation;
  box: PieceBox | undefined;
  set: SheetSet;
  edits: AnnotationEdits;
}

export function PieceLedge({ piece, box, set, edits }: Props) {
  const { spec } = piece;
  return (
    <Ledge label={`Ledge: ${KIND_NAMES[spec.kind]}`}>
      {spec.kind === "note" && <NoteFields key={piece.id} piece={{ ...piece, spec }} edits={edits} />}
      {spec.kind === "dimension" && <DimensionFields piece={{ ...piece, spec }} edits={edits} />}
      {spec.kind === "level" && <LevelFields piece={{ ...piece, spec }} edits={edits} />}
      {spec.kind === "schedule" && (
        <ScheduleFields piece={{ ...piece, spec }} version={set.version} edits={edits} />
      )}
      {spec.kind === "tag" && <TagFields piece={{ ...piece, spec }} edits={edits} />}
      {spec.kind === "cloud" && <CloudFields piece={{ ...piece, spec }} edits={edits} />}
      {spec.kind !== "cloud" && <BelongsTo piece={piece} box={box} set={set} edits={edits} />}
      <Stands piece={piece} box={box} edits={edits} />
    </Ledge>
  );
}

interface SeveralProps {
  pieces: readonly Annotation[];
  /** Viewports that are chosen with them. */
  viewports: Viewport[];
  edits: Edits;
  annotation: AnnotationEdits;
}

/** Several pieces, or some beside viewports: what can be done to all of them. */
export function PiecesLedge({ pieces, viewports, edits, annotation }: SeveralProps) {
  const count = `${pieces.length} ${pieces.length === 1 ? "piece" : "pieces"} of annotation`;
  const also = viewports.length
    ? `, ${viewports.length} ${viewports.length === 1 ? "viewport" : "viewports"}`
    : "";
  return (
    <Ledge label="Ledge: annotation">
      <Group name={count + also}>
        <Buttons>
          <Tooltip title="Delete all that is selected (Delete)">
            <Button
              variant="outlined"
              onClick={() => {
                annotation.remove(pieces);
                if (viewports.length) void edits.remove(viewports);
              }}
            >
              Delete
            </Button>
          </Tooltip>
        </Buttons>
      </Group>
    </Ledge>
  );
}

/** Whether a piece is seen on this sheet alone, or wherever its view is placed. */
function BelongsTo({ piece, box, set, edits }: Props) {
  const viewport = set.on.find((v) => v.id === (piece.viewport ?? box?.viewport));
  const view = set.viewOf(piece.view ?? viewport?.view);
  if (!viewport || !view)
    return (
      <Group name="Where it belongs">
        <Box sx={{ fontSize: 12.5, width: 150, pt: 1.5, color: "text.secondary" }}>On this sheet</Box>
      </Group>
    );
  return (
    <Group name="Where it belongs">
      <ChoiceField
        label="Belongs to"
        width={178}
        value={piece.view ? "view" : "sheet"}
        choices={[
          ["sheet", "This viewport only"],
          ["view", `The view ${view.name}`],
        ]}
        onChoose={(to) =>
          void edits.change(
            [piece],
            () =>
              to === "view"
                ? { view: view.id, sheet: null, viewport: null }
                : { view: null, sheet: viewport.sheet, viewport: viewport.id },
            to === "view" ? "move into the view" : "move onto the sheet",
          )
        }
      />
    </Group>
  );
}

/** How a piece stands to the model, and what can be done about it. */
function Stands({ piece, box, edits }: Omit<Props, "set">) {
  const wrong = box && box.standing !== "followed" ? box : null;
  const again = () => useAnnotating.setState({ ...NO_POINTS, tool: piece.spec.kind, attaching: piece.id });
  return (
    <Box
      sx={{
        ml: "auto",
        pt: "20px",
        display: "flex",
        flexDirection: "column",
        gap: 0.75,
        alignItems: "flex-end",
      }}
    >
      <Box sx={{ display: "flex", gap: 0.5 }}>
        {wrong?.standing === "changed" && (
          <Tooltip title="The new figures are right: mark it no longer">
            <Button variant="contained" onClick={() => void edits.accept(piece, wrong)}>
              Accept
            </Button>
          </Tooltip>
        )}
        {piece.spec.kind !== "schedule" && (
          <Tooltip
            title={piece.spec.kind === "cloud" ? "Choose its two corners anew" : "Choose its points anew"}
          >
            <Button variant="outlined" onClick={again}>
              {piece.spec.kind === "cloud" ? "Draw again" : "Attach again"}
            </Button>
          </Tooltip>
        )}
        <Tooltip title="Delete it (Delete)">
          <Button variant="outlined" onClick={() => edits.remove([piece])}>
            Delete
          </Button>
        </Tooltip>
      </Box>
      {wrong && (
        <Box
          role="status"
          sx={{ fontSize: 12, maxWidth: 280, textAlign: "right", color: colours.rust, lineHeight: 1.35 }}
        >
          {wrong.standing === "changed" ? "Changed" : "Lost"}: {wrong.words}.
        </Box>
      )}
    </Box>
  );
}
