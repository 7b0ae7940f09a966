/** The ledge of a piece of annotation: what it says, how it looks, where it belongs, and how it stands. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Annotation, PieceBox, Viewport } from "../../../api/client";
import { geometryOf, outlined, type Point } from "../../../canvas/geometry";
import { ChoiceField } from "../../../components/ChoiceField";
import { Buttons, Group, Ledge } from "../../../components/Ledge";
import { NO_POINTS, useAnnotating } from "../../../stores/annotating";
import { useClipboard } from "../../../stores/clipboard";
import { notify } from "../../../stores/notices";
import { colours } from "../../../theme/theme";
import type { Alignment, AnnotationEdits } from "./annotationCommands";
import { DimensionFields, LevelFields, MeasureFields } from "./DimensionFields";
import { NoteFields, NumberedFields } from "./NoteFields";
import { KIND_NAMES, ON_SHEET, lookOf } from "./pieces";
import { ScheduleFields } from "./ScheduleFields";
import { ShapeCommands, ShapeFields, outlineOnSheet, type ShapePiece } from "./ShapeFields";
import { ImageFields, SymbolFields } from "./SymbolFields";
import { TableFields } from "./TableFields";
import { CloudFields, TagFields } from "./TagFields";
import type { Edits } from "../sheetCommands";
import type { SheetSet } from "../useSet";
import { t } from "../../../words/words";

interface Props {
  piece: Annotation;
  box: PieceBox | undefined;
  set: SheetSet;
  edits: AnnotationEdits;
  /** Place a view within an outline on the sheet. */
  onOutline: (points: readonly Point[]) => void;
}

export function PieceLedge({ piece, box, set, edits, onOutline }: Props) {
  const { spec } = piece;
  return (
    <Ledge label={t("Ledge: {kind}", { kind: KIND_NAMES[spec.kind] })}>
      <Fields key={piece.id} piece={piece} set={set} edits={edits} onOutline={onOutline} />
      {!ON_SHEET.includes(spec.kind) && <BelongsTo piece={piece} box={box} set={set} edits={edits} />}
      <Stands piece={piece} box={box} edits={edits} />
    </Ledge>
  );
}

/** What a piece says and how it looks, by its kind. */
function Fields({ piece, set, edits, onOutline }: Omit<Props, "box">) {
  const { spec } = piece;
  switch (spec.kind) {
    case "note":
      return <NoteFields piece={{ ...piece, spec }} edits={edits} />;
    case "numbered":
      return <NumberedFields piece={{ ...piece, spec }} edits={edits} />;
    case "dimension":
      return <DimensionFields piece={{ ...piece, spec }} edits={edits} />;
    case "measure":
      return <MeasureFields piece={{ ...piece, spec }} edits={edits} />;
    case "level":
      return <LevelFields piece={{ ...piece, spec }} edits={edits} />;
    case "schedule":
      return <ScheduleFields piece={{ ...piece, spec }} version={set.version} edits={edits} />;
    case "table":
      return <TableFields piece={{ ...piece, spec }} edits={edits} />;
    case "tag":
      return <TagFields piece={{ ...piece, spec }} edits={edits} />;
    case "cloud":
      return <CloudFields piece={{ ...piece, spec }} edits={edits} />;
    case "shape":
      return <ShapeFields piece={{ ...piece, spec }} edits={edits} onOutline={onOutline} />;
    case "symbol":
      return <SymbolFields piece={{ ...piece, spec }} edits={edits} />;
    case "image":
      return <ImageFields piece={{ ...piece, spec }} edits={edits} />;
  }
}

interface SeveralProps {
  pieces: readonly Annotation[];
  /** Viewports that are chosen with them. */
  viewports: Viewport[];
  set: SheetSet;
  edits: Edits;
  annotation: AnnotationEdits;
  onToSheets: () => void;
}

const ALIGNMENTS: readonly (readonly [Alignment, string])[] = [
  ["left", t("Left sides")],
  ["centre", t("Centres, left to right")],
  ["right", t("Right sides")],
  ["top", t("Tops")],
  ["middle", t("Centres, up and down")],
  ["bottom", t("Bottoms")],
];

/** Several pieces, or some beside viewports: what can be done to all of them. */
export function PiecesLedge({ pieces, viewports, set, edits, annotation, onToSheets }: SeveralProps) {
  const count = t("{count} {which} of annotation", {
    count: pieces.length,
    which: pieces.length === 1 ? t("piece") : t("pieces"),
  });
  const also = viewports.length
    ? `, ${viewports.length} ${viewports.length === 1 ? "viewport" : "viewports"}`
    : "";
  const grouped = pieces.length > 1 && pieces[0]?.group && pieces.every((p) => p.group === pieces[0]?.group);
  const shapes = pieces.filter((p): p is ShapePiece => p.spec.kind === "shape");
  const boxes = set.display?.pieces ?? [];
  const outline = shapes.length === 1 && shapes[0] ? outlineOnSheet(shapes[0]) : null;
  const viewport = viewports.length === 1 ? viewports[0] : undefined;
  return (
    <Ledge label={t("Ledge: annotation")}>
      <Group name={count + also}>
        <Buttons>
          <ChoiceField
            label={t("Align by")}
            width={176}
            value=""
            choices={[["", t("Choose")], ...ALIGNMENTS]}
            onChoose={(to) => to && annotation.align(pieces, boxes, set.on, to as Alignment)}
          />
        </Buttons>
      </Group>
      <Group name={t("Together")}>
        <Buttons>
          <Tooltip
            title={grouped ? t("Each is chosen by itself again") : t("They are chosen and moved together")}
          >
            <Button
              variant="outlined"
              disabled={pieces.length < 2}
              onClick={() => void annotation.group(pieces, !grouped)}
            >
              {grouped ? t("Ungroup") : t("Group")}
            </Button>
          </Tooltip>
          <Look pieces={pieces} edits={annotation} />
        </Buttons>
      </Group>
      {shapes.length === pieces.length && (
        <Group name={t("Shapes")}>
          <Buttons>
            <ShapeCommands pieces={shapes} edits={annotation} />
            {outline && viewport && (
              <Tooltip title={t("The viewport shows what lies within the shape")}>
                <Button
                  variant="outlined"
                  onClick={() =>
                    void edits.reshape(
                      new Map([[viewport.id, outlined(geometryOf(viewport), outline)]]),
                      t("draw the outline of a viewport"),
                    )
                  }
                >
                  {t("Use as outline")}
                </Button>
              </Tooltip>
            )}
          </Buttons>
        </Group>
      )}
      <Group name={t("All")}>
        <Buttons>
          <Order pieces={pieces} edits={annotation} />
          <Tooltip title={t("Copies of what stands beside drawings, in the same places on other sheets")}>
            <Button variant="outlined" onClick={onToSheets}>
              {t("Copy to sheets…")}
            </Button>
          </Tooltip>
          <Tooltip title={t("Delete all that is selected (Delete)")}>
            <Button
              variant="outlined"
              onClick={() => {
                annotation.remove(pieces);
                if (viewports.length) void edits.remove(viewports);
              }}
            >
              {t("Delete")}
            </Button>
          </Tooltip>
        </Buttons>
      </Group>
    </Ledge>
  );
}

/** Take the look of a piece up, and give it to others. */
function Look({ pieces, edits }: { pieces: readonly Annotation[]; edits: AnnotationEdits }) {
  const look = useClipboard((s) => s.look);
  const [first] = pieces;
  return (
    <>
      <Tooltip title={t("Keep how this looks, to give it to others")}>
        <Button
          variant="outlined"
          disabled={pieces.length !== 1}
          onClick={() => {
            if (!first) return;
            useClipboard.setState({ look: lookOf(first.spec) });
            notify(t("Its style is kept. Select others, and apply it."));
          }}
        >
          {t("Copy style")}
        </Button>
      </Tooltip>
      {look && (
        <Tooltip title={t("Give these the style that was copied")}>
          <Button variant="outlined" onClick={() => void edits.match(pieces, look)}>
            {t("Apply style")}
          </Button>
        </Tooltip>
      )}
    </>
  );
}

function Order({ pieces, edits }: { pieces: readonly Annotation[]; edits: AnnotationEdits }) {
  return (
    <>
      <Tooltip title={t("Above all other annotation (Home)")}>
        <Button variant="outlined" onClick={() => void edits.order(pieces, true)}>
          {t("Front")}
        </Button>
      </Tooltip>
      <Tooltip title={t("Below all other annotation (End)")}>
        <Button variant="outlined" onClick={() => void edits.order(pieces, false)}>
          {t("Back")}
        </Button>
      </Tooltip>
    </>
  );
}

/** Whether a piece is seen on this sheet alone, or wherever its view is placed. */
function BelongsTo({ piece, box, set, edits }: Omit<Props, "onOutline">) {
  const viewport = set.on.find((v) => v.id === (piece.viewport ?? box?.viewport));
  const view = set.viewOf(piece.view ?? viewport?.view);
  if (!viewport || !view)
    return (
      <Group name={t("Where it belongs")}>
        <Box sx={{ fontSize: 12.5, width: 150, pt: 1.5, color: "text.secondary" }}>{t("On this sheet")}</Box>
      </Group>
    );
  return (
    <Group name={t("Where it belongs")}>
      <ChoiceField
        label={t("Belongs to")}
        width={194}
        value={piece.view ? "view" : "sheet"}
        choices={[
          ["sheet", t("This viewport only")],
          ["view", t("The view {name}", { name: view.name })],
        ]}
        onChoose={(to) =>
          void edits.change(
            [piece],
            () =>
              to === "view"
                ? { view: view.id, sheet: null, viewport: null }
                : { view: null, sheet: viewport.sheet, viewport: viewport.id },
            to === "view" ? t("move into the view") : t("move onto the sheet"),
          )
        }
      />
    </Group>
  );
}

/** How a piece stands to the model, and what can be done about it. */
function Stands({ piece, box, edits }: Pick<Props, "piece" | "box" | "edits">) {
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
          <Tooltip title={t("The new figures are right: mark it no longer")}>
            <Button variant="contained" onClick={() => void edits.accept(piece, wrong)}>
              {t("Accept")}
            </Button>
          </Tooltip>
        )}
        {!["schedule", "table", "image", "symbol"].includes(piece.spec.kind) && (
          <Tooltip
            title={
              piece.spec.kind === "cloud" ? t("Choose its two corners anew") : t("Choose its points anew")
            }
          >
            <Button variant="outlined" onClick={again}>
              {piece.spec.kind === "cloud" ? t("Draw again") : t("Attach again")}
            </Button>
          </Tooltip>
        )}
        <Tooltip title={t("Delete it (Delete)")}>
          <Button variant="outlined" onClick={() => edits.remove([piece])}>
            {t("Delete")}
          </Button>
        </Tooltip>
      </Box>
      <Box sx={{ display: "flex", gap: 0.5 }}>
        <Look pieces={[piece]} edits={edits} />
        <Order pieces={[piece]} edits={edits} />
      </Box>
      {wrong && (
        <Box
          role="status"
          sx={{ fontSize: 12, maxWidth: 280, textAlign: "right", color: colours.rust, lineHeight: 1.35 }}
        >
          {wrong.standing === "changed" ? t("Changed") : t("Lost")}: {wrong.words}.
        </Box>
      )}
    </Box>
  );
}
