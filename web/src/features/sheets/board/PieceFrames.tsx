/** Pieces of annotation under the pointer: chosen by a click, dragged to where they are to lie. */
import Box from "@mui/material/Box";
import { useEffect, useRef, useState, type PointerEvent } from "react";
import type { Annotation, AnnotationSpec, PieceBox, Viewport } from "../../../api/client";
import { offsetFor, wayOf } from "../../../canvas/dimensions";
import { drag } from "../../../canvas/drag";
import { geometryOf, toScreen, turned, type Camera, type Point } from "../../../canvas/geometry";
import { select, useSelection } from "../../../stores/selection";
import { colours } from "../../../theme/theme";
import { KIND_NAMES, shiftedCloud, shiftedSchedule, type AnnotationEdits } from "../annotationCommands";
import { tenth } from "./Movable";

/** What is taken hold of is not smaller than this; pixels. */
const LEAST = 14;

interface Props {
  boxes: readonly PieceBox[];
  pieces: readonly Annotation[];
  on: readonly Viewport[];
  camera: Camera;
  edits: AnnotationEdits;
}

export function PieceFrames({ boxes, pieces, on, camera, edits }: Props) {
  return boxes.map((box) => {
    const piece = pieces.find((p) => p.id === box.piece);
    if (!piece) return null;
    const viewport = on.find((v) => v.id === box.viewport);
    return (
      <PieceFrame
        key={`${box.piece} ${box.viewport}`}
        box={box}
        piece={piece}
        viewport={viewport}
        camera={camera}
        onMove={(by) =>
          void edits.change(
            [piece],
            (p) => ({ spec: movedBy(p.spec, box, viewport, by) }),
            `move a ${KIND_NAMES[piece.spec.kind]}`,
          )
        }
      />
    );
  });
}

/** A piece moved by a distance on paper: its words or its line, and not what it is attached to. */
export function movedBy(
  spec: AnnotationSpec,
  box: Pick<PieceBox, "at" | "points">,
  viewport: Viewport | undefined,
  by: Point,
): AnnotationSpec {
  if (spec.kind === "note" || spec.kind === "tag") {
    const [x, y] = spec.offset;
    return { ...spec, offset: [tenth(x + by[0]), tenth(y + by[1])] };
  }
  if (spec.kind === "schedule") return shiftedSchedule(spec, [tenth(by[0]), tenth(by[1])]);
  if (spec.kind === "cloud") return shiftedCloud(spec, viewport, [tenth(by[0]), tenth(by[1])]);
  if (!viewport) return spec;
  const g = geometryOf(viewport);
  if (spec.kind === "level") return { ...spec, offset: tenth(spec.offset + turned(by, -g.turn)[0]) };
  const [x, y] = turned(wayOf(spec.measures, box.at), g.turn);
  const [px = 0, py = 0] = box.points[0] ?? [];
  // Where a point of its line has gone.
  const place: Point = [px - y * spec.offset + by[0], py + x * spec.offset + by[1]];
  return { ...spec, offset: offsetFor(g, spec.measures, box.at, place) };
}

interface FrameProps {
  box: PieceBox;
  piece: Annotation;
  viewport: Viewport | undefined;
  camera: Camera;
  onMove: (by: Point) => void;
}

function PieceFrame({ box, piece, viewport, camera, onMove }: FrameProps) {
  const selected = useSelection((s) => s.selected.includes(piece.id));
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
    if (event.shiftKey) {
      select(selected ? chosen.filter((id) => id !== piece.id) : [...chosen, piece.id]);
      return;
    }
    select(piece.id);
    drag(event, {
      move: (dx, dy) => setBy([dx, dy]),
      end: (dragged, e) =>
        dragged &&
        onMove([(e.clientX - event.clientX) / camera.scale, (event.clientY - e.clientY) / camera.scale]),
      onEnd: () => setBy(null),
    });
  };
  const [dx, dy] = by ?? [0, 0];
  const [left, top] = toScreen(camera, box.box.x, box.box.y + box.box.height);
  const [width, height] = [box.box.width * camera.scale, box.box.height * camera.scale];
  const [wide, high] = [Math.max(width, LEAST), Math.max(height, LEAST)];
  const wrong = box.standing !== "followed";
  const accent = selected || wrong ? colours.rust : colours.sandShade;
  const kind = KIND_NAMES[piece.spec.kind];
  const name = `${kind[0]?.toUpperCase() ?? ""}${kind.slice(1)}: ${box.text}`;
  return (
    <Box
      ref={element}
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={wrong ? `${name}, ${box.standing}` : name}
      title={wrong ? `${name}\n${box.standing}: ${box.words}` : name}
      onPointerDown={press}
      onKeyDown={(event) => event.key === "Enter" && !selected && select(piece.id)}
      data-in={viewport?.id ?? "sheet"}
      sx={{
        position: "absolute",
        left: left + dx - (wide - width) / 2 - 2,
        top: top + dy - (high - height) / 2 - 2,
        width: wide + 4,
        height: high + 4,
        zIndex: 3,
        cursor: "move",
        borderRadius: "2px",
        outline: selected ? `1.5px solid ${colours.rust}` : wrong ? `1.5px dashed ${colours.rust}` : "none",
        bgcolor: wrong ? `${colours.rust}18` : "transparent",
        "&:hover": {
          outline: `1px ${wrong ? "dashed" : "solid"} ${accent}`,
        },
        "&:focus-visible": { outline: `2px solid ${colours.rust}` },
      }}
    >
      {wrong && (
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
          {box.standing}
        </Box>
      )}
    </Box>
  );
}
