/** Pieces of annotation under the pointer: chosen by a click, dragged to where they are to lie. */
import Box from "@mui/material/Box";
import { memo, useEffect, useMemo, useRef, useState, type PointerEvent } from "react";
import type { Annotation, PieceBox, Viewport } from "../../../api/client";
import { drag } from "../../../canvas/drag";
import { toScreen, type Camera, type Point } from "../../../canvas/geometry";
import { useBoard } from "../../../stores/board";
import { select, useSelection } from "../../../stores/selection";
import { colours } from "../../../theme/theme";
import type { AnnotationEdits } from "./annotationCommands";
import { PieceHandles } from "./PieceHandles";
import { KIND_NAMES, STANDINGS, movedBy } from "./pieces";
import type { Annotate } from "./useAnnotate";
import { t } from "../../../words/words";

/** What is taken hold of is not smaller than this; pixels. */
const MIN_SIDE = 14;

interface Props {
  /** The sheet that they are on, by its id. */
  sheet: string;
  boxes: readonly PieceBox[];
  pieces: readonly Annotation[];
  on: readonly Viewport[];
  camera: Camera;
  annotating: Annotate;
  edits: AnnotationEdits;
}

const NOTHING: readonly string[] = [];
const NO_BOXES: readonly PieceBox[] = [];
/** So few pieces have their frames at once. */
const FEW = 60;

/** Boxes as they are once the sheet is painted: it is seen before it is taken hold of. */
function useWhenPainted(sheet: string, now: readonly PieceBox[]): readonly PieceBox[] {
  const painted = useBoard((s) => s.painted === sheet);
  const [boxes, setBoxes] = useState(NO_BOXES);
  if (boxes !== now && (painted || now.length < FEW)) setBoxes(now);
  return boxes;
}

/** Of hundreds of pieces nothing is worked out anew while something else is dragged. */
export const PieceFrames = memo(function PieceFrames(props: Props) {
  const { pieces, on, camera, annotating, edits } = props;
  const boxes = useWhenPainted(props.sheet, props.boxes);
  const selected = useSelection((s) => s.selected);
  const only = selected.length === 1 ? selected[0] : undefined;
  const rows = useMemo(() => new Map(pieces.map((piece) => [piece.id, piece])), [pieces]);
  const groups = useMemo(() => {
    const found = new Map<string, string[]>();
    for (const { group, id } of pieces) if (group) found.set(group, [...(found.get(group) ?? []), id]);
    return found;
  }, [pieces]);
  const viewports = useMemo(() => new Map(on.map((v) => [v.id, v])), [on]);
  const move = (piece: Annotation, box: PieceBox, by: Point) => {
    const chosen = useSelection.getState().selected;
    const moved = pieces.filter((p) => chosen.includes(p.id));
    void edits.change(
      moved.length ? moved : [piece],
      (p) => {
        const own = p.id === piece.id ? box : (boxes.find((b) => b.piece === p.id) ?? box);
        return { spec: movedBy(p.spec, own, viewports.get(own.viewport), by) };
      },
      moved.length > 1
        ? t("move {count} pieces", { count: moved.length })
        : t("move a {kind}", { kind: KIND_NAMES[piece.spec.kind] }),
    );
  };
  return (
    <Box sx={FRAMES}>
      {boxes.map((box) => {
        const piece = rows.get(box.piece);
        if (!piece) return null;
        return (
          <PieceFrame
            key={`${box.piece} ${box.viewport}`}
            box={box}
            piece={piece}
            camera={camera}
            selected={selected.includes(piece.id)}
            together={groups.get(piece.group) ?? NOTHING}
            onMove={(by) => move(piece, box, by)}
          />
        );
      })}
      {boxes.map((box) => {
        const piece = box.piece === only ? rows.get(only) : undefined;
        return (
          piece && (
            <PieceHandles
              key={`${box.viewport} handles`}
              box={box}
              piece={piece}
              viewport={viewports.get(box.viewport)}
              camera={camera}
              annotating={annotating}
              edits={edits}
            />
          )
        );
      })}
    </Box>
  );
});

/** One rule for all frames: a style of its own for each would be made anew for every place it has. */
const FRAMES = {
  display: "contents",
  "& > [data-piece]": {
    position: "absolute",
    zIndex: 3,
    cursor: "move",
    borderRadius: "2px",
    "&:hover": { outline: `1px solid ${colours.sandShade}` },
    "&:focus-visible": { outline: `2px solid ${colours.rust}` },
  },
  "& > [data-wrong]": {
    outline: `1.5px dashed ${colours.rust}`,
    bgcolor: `${colours.rust}18`,
    "&:hover": { outline: `1px dashed ${colours.rust}` },
  },
  "& > [aria-pressed=true]": {
    outline: `1.5px solid ${colours.rust}`,
    "&:hover": { outline: `1.5px solid ${colours.rust}` },
  },
} as const;

interface FrameProps {
  box: PieceBox;
  piece: Annotation;
  camera: Camera;
  selected: boolean;
  /** The ids of all that it is chosen with. */
  together: readonly string[];
  onMove: (by: Point) => void;
}

function PieceFrame({ box, piece, camera, selected, together, onMove }: FrameProps) {
  const [by, setBy] = useState<Point | null>(null);
  const element = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (selected && !document.activeElement?.closest("input, textarea, [role=dialog], [role=presentation]"))
      element.current?.focus({ preventScroll: true });
  }, [selected]);
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const chosen = useSelection.getState().selected;
    const own = together.length && !event.altKey ? together : [piece.id];
    if (event.shiftKey) {
      select(selected ? chosen.filter((id) => !own.includes(id)) : [...new Set([...chosen, ...own])]);
      return;
    }
    // What is chosen with others is dragged with them.
    if (!selected || event.altKey) select(own);
    drag(event, {
      move: (dx, dy) => setBy([dx, dy]),
      end: (dragged, e) => {
        if (dragged)
          onMove([(e.clientX - event.clientX) / camera.scale, (event.clientY - e.clientY) / camera.scale]);
        else select(own);
      },
      onEnd: () => setBy(null),
    });
  };
  const [dx, dy] = by ?? [0, 0];
  const [left, top] = toScreen(camera, box.box.x, box.box.y + box.box.height);
  const [width, height] = [box.box.width * camera.scale, box.box.height * camera.scale];
  const [wide, high] = [Math.max(width, MIN_SIDE), Math.max(height, MIN_SIDE)];
  const wrong = box.standing !== "followed";
  const kind = KIND_NAMES[piece.spec.kind];
  const name = `${kind[0]?.toUpperCase() ?? ""}${kind.slice(1)}${box.text && `: ${box.text}`}`;
  return (
    <div
      ref={element}
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={wrong ? `${name}, ${STANDINGS[box.standing] ?? ""}` : name}
      title={wrong ? `${name}\n${STANDINGS[box.standing] ?? ""}: ${box.words}` : name}
      onPointerDown={press}
      onKeyDown={(event) => event.key === "Enter" && !selected && select(piece.id)}
      data-piece=""
      data-thing={piece.id}
      data-in={box.viewport || "sheet"}
      data-wrong={wrong ? "" : undefined}
      style={{
        left: left + dx - (wide - width) / 2 - 2,
        top: top + dy - (high - height) / 2 - 2,
        width: wide + 4,
        height: high + 4,
      }}
    >
      {wrong && <Standing words={STANDINGS[box.standing] ?? ""} />}
    </div>
  );
}

const Standing = ({ words }: { words: string }) => (
  <Box
    sx={{
      position: "absolute",
      left: 0,
      bottom: "100%",
      fontSize: 10.5,
      lineHeight: "14px",
      px: 0.5,
      fontWeight: 650,
      whiteSpace: "nowrap",
      color: colours.paper,
      bgcolor: colours.rust,
      borderRadius: "2px",
      pointerEvents: "none",
    }}
  >
    {words}
  </Box>
);
