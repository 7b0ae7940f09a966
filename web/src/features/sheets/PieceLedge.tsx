/** The ledge of a piece of annotation: what it says, how it looks, where it belongs, and how it stands. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type {
  Annotation,
  AnnotationSpec,
  CloudSpec,
  DimensionSpec,
  NoteSpec,
  PieceBox,
  SpotLevelSpec,
  TagSpec,
  Viewport,
} from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../components/Ledge";
import { ToggleButton } from "../../components/ToggleButton";
import { NO_POINTS, useAnnotating } from "../../stores/annotating";
import { colours } from "../../theme/theme";
import { KIND_NAMES, type AnnotationEdits } from "./annotationCommands";
import { NoteText } from "./NoteText";
import { ALIGNS, LEADERS, MEASURES, STYLES, TAG_WORDS } from "./pieceChoices";
import { ScheduleFields } from "./ScheduleFields";
import type { Edits } from "./sheetCommands";
import type { SheetSet } from "./useSet";

interface Props {
  piece: Annotation;
  box: PieceBox | undefined;
  set: SheetSet;
  edits: AnnotationEdits;
}
type Of<S extends AnnotationSpec> = { piece: Annotation & { spec: S }; edits: AnnotationEdits };

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

const SIZES = ["1.8", "2.5", "3.5", "5", "7"].map((size) => [size, `${size} mm`] as const);

function NoteFields({ piece, edits }: Of<NoteSpec>) {
  const { spec } = piece;
  const change = (to: Partial<NoteSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <>
      <Group name="Note" grow>
        <NoteText text={spec.text} onCommit={(text) => change({ text }, "text of a note")} />
      </Group>
      <Group name="Lettering">
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField
              label="Height"
              width={84}
              value={String(spec.size)}
              choices={SIZES}
              onChoose={(size) => change({ size: Number(size) }, "height of lettering")}
            />
            <ChoiceField
              label="Aligned"
              width={84}
              value={spec.align}
              choices={ALIGNS}
              onChoose={(align) => change({ align: align as NoteSpec["align"] }, "alignment of a note")}
            />
          </Box>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <FigureField
              label="Width"
              unit="mm"
              number
              width={84}
              value={String(spec.width)}
              onCommit={(width) => change({ width: Number(width) }, "width of a note")}
            />
            <ToggleButton
              on={spec.bold}
              name="Bold"
              tip="All of its words"
              onToggle={() => change({ bold: !spec.bold }, "bold or not")}
            />
          </Box>
        </Rows>
      </Group>
      <Group name="Leader">
        <ChoiceField
          label="Ends"
          width={134}
          value={spec.leader}
          choices={LEADERS}
          onChoose={(leader) => change({ leader: leader as NoteSpec["leader"] }, "leader of a note")}
        />
      </Group>
    </>
  );
}

function DimensionFields({ piece, edits }: Of<DimensionSpec>) {
  const { spec } = piece;
  const change = (to: Partial<DimensionSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const single = spec.points.length === 2;
  return (
    <Group name="Dimension">
      <Rows>
        <ChoiceField
          label="Measures"
          width={136}
          value={spec.measures}
          choices={MEASURES}
          onChoose={(to) =>
            change({ measures: to as DimensionSpec["measures"] }, "what a dimension measures")
          }
        />
        <ChoiceField
          label="Figures in"
          width={136}
          value={spec.style}
          choices={STYLES}
          onChoose={(to) => change({ style: to as DimensionSpec["style"] }, "unit of a dimension")}
        />
      </Rows>
      <Rows>
        <FigureField
          label="From first point"
          unit="mm"
          number
          width={136}
          value={String(spec.offset)}
          onCommit={(to) => change({ offset: Number(to) }, "move a dimension")}
        />
        {single ? (
          <FigureField
            label="Typed over the figure"
            width={136}
            value={spec.overrides[0] ?? ""}
            placeholder="true figure"
            onCommit={(text) => change({ overrides: text ? [text] : [] }, "text of a dimension")}
          />
        ) : (
          <Buttons>
            <ToggleButton
              on={spec.together}
              name="Equal lengths as one"
              tip="Such as 4 × 600 = 2400"
              onToggle={() => change({ together: !spec.together }, "equal lengths as one or not")}
            />
          </Buttons>
        )}
      </Rows>
    </Group>
  );
}

function LevelFields({ piece, edits }: Of<SpotLevelSpec>) {
  const { spec } = piece;
  const change = (to: Partial<SpotLevelSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Spot level">
      <Rows>
        <FigureField
          label="Typed over the figure"
          width={136}
          value={spec.override}
          placeholder="true figure"
          onCommit={(override) => change({ override }, "text of a level")}
        />
        <ToggleButton
          on={spec.feet}
          name="Feet and inches"
          tip="In feet and inches, and not in metres"
          onToggle={() => change({ feet: !spec.feet }, "unit of a level")}
        />
      </Rows>
    </Group>
  );
}

function TagFields({ piece, edits }: Of<TagSpec>) {
  const { spec } = piece;
  const change = (to: Partial<TagSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Tag">
      <Rows>
        <ChoiceField
          label="Shows"
          width={136}
          value={spec.shows}
          choices={TAG_WORDS}
          onChoose={(shows) => change({ shows: shows as TagSpec["shows"] }, "what a tag shows")}
        />
        <FigureField
          label="Typed over"
          width={136}
          value={spec.override}
          placeholder="its own words"
          onCommit={(override) => change({ override }, "text of a tag")}
        />
      </Rows>
    </Group>
  );
}

function CloudFields({ piece, edits }: Of<CloudSpec>) {
  const { spec } = piece;
  const change = (to: Partial<CloudSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Cloud">
      <FigureField
        label="Revision"
        width={92}
        value={spec.revision}
        onCommit={(revision) => change({ revision }, "revision of a cloud")}
      />
      <ToggleButton
        on={spec.kept}
        name="Keep it"
        tip="It stays when the sheet has its next revision"
        onToggle={() => change({ kept: !spec.kept }, "keep a cloud or not")}
      />
    </Group>
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
