/** The points of a piece that is chosen alone, each dragged to what it is to be attached to or taken away;
 * and the figures of a dimension, dragged to where they read. */
import Box from "@mui/material/Box";
import { useState, type PointerEvent } from "react";
import type { Annotation, AnnotationSpec, PieceBox, Viewport } from "../../../api/client";
import { wayOf } from "../../../canvas/dimensions";
import { drag } from "../../../canvas/drag";
import {
  geometryOf,
  inView,
  toPaper,
  toScreen,
  turned,
  type Camera,
  type Point,
} from "../../../canvas/geometry";
import { NO_POINTS, useAnnotating } from "../../../stores/annotating";
import { notify } from "../../../stores/notices";
import { colours } from "../../../theme/theme";
import type { AnnotationEdits } from "./annotationCommands";
import { KIND_NAMES, anchorAt, anchorsOf, withAnchors } from "./pieces";
import { pointsOf } from "./tools";
import type { Annotate } from "./useAnnotate";
import { t } from "../../../words/words";

interface Props {
  box: PieceBox;
  piece: Annotation;
  viewport: Viewport | undefined;
  camera: Camera;
  annotating: Annotate;
  edits: AnnotationEdits;
}

/** Kinds that lie where their one point does: all of it is dragged. */
const WHOLE = ["schedule", "table", "symbol", "image"];

export function PieceHandles({ box, piece, viewport, camera, annotating, edits }: Props) {
  const { spec } = piece;
  const [dragged, setDragged] = useState<{ k: number; by: Point } | null>(null);
  if (WHOLE.includes(spec.kind)) return null;
  const least = fewest(spec);
  const growing = (spec.kind === "shape" && (spec.form === "line" || spec.form === "curve")) ||
    (spec.kind === "measure" && spec.of === "area"); // prettier-ignore

  /** Attach a point anew, or a further one after it. */
  async function attach(k: number, at: Point, free: boolean, further: boolean) {
    useAnnotating.setState({ ...NO_POINTS, viewport: viewport?.id ?? null });
    const { snap, viewport: through } = await annotating.snapAt(at, free);
    const place = viewport ? inView(geometryOf(viewport), at) : at;
    const anchor =
      through === (viewport?.id ?? null) ? anchorAt(snap) : anchorAt({ at: [...place], element: "" });
    const anchors = anchorsOf(spec).map((old, n) =>
      // The rest keeps what it is attached to, at where it lies now.
      old.element ? old : anchorAt({ at: box.at[n] ?? old.at, element: "" }),
    );
    const to = further ? anchors.toSpliced(k + 1, 0, anchor) : anchors.with(k, anchor);
    const what = further ? t("add a point") : t("move a point");
    await edits.change(
      [piece],
      () => ({ spec: withAnchors(spec, to) }),
      t("{what} of a {kind}", { what, kind: KIND_NAMES[spec.kind] }),
    );
  }

  function remove(k: number) {
    const anchors = anchorsOf(spec);
    if (anchors.length <= least) return notify(t("It has no more points than it needs."), true);
    const to = withAnchors(spec, anchors.toSpliced(k, 1));
    void edits.change(
      [piece],
      () => ({ spec: to }),
      t("remove a point of a {kind}", { kind: KIND_NAMES[spec.kind] }),
    );
  }

  const press = (event: PointerEvent, k: number, further: boolean) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    if (event.shiftKey && !further) return remove(k);
    const board = event.currentTarget.parentElement?.getBoundingClientRect();
    drag(event, {
      move: (dx, dy) => setDragged({ k: further ? k + 0.5 : k, by: [dx, dy] }),
      end: (moved, e) => {
        if (moved && board)
          void attach(k, toPaper(camera, e.clientX - board.left, e.clientY - board.top), e.altKey, further);
      },
      onEnd: () => setDragged(null),
    });
  };
  const handles = box.points.map((point, k) => ({ k, further: false, at: toScreen(camera, ...point) }));
  const middles = growing
    ? handles.flatMap(({ at }, k) => {
        const after = handles[k + 1];
        return after ? [{ k, further: true, at: between(at, after.at) }] : [];
      })
    : [];
  return (
    <>
      {[...middles, ...handles].map(({ k, further, at: [x, y] }) => {
        const number = further ? k + 0.5 : k;
        const [dx, dy] = dragged?.k === number ? dragged.by : [0, 0];
        const size = further ? 7 : 10;
        return (
          <Box
            key={number}
            role="button"
            aria-label={
              further ? t("Add a point after point {k}", { k: k + 1 }) : t("Point {k}", { k: k + 1 })
            }
            title={
              further
                ? t("Drag to add a point here")
                : t("Drag to attach it elsewhere") +
                  (anchorsOf(spec).length > least ? t("; Shift and click removes it") : "")
            }
            onPointerDown={(event) => press(event, k, further)}
            sx={{
              position: "absolute",
              left: x + dx - size / 2,
              top: y + dy - size / 2,
              width: size,
              height: size,
              zIndex: 5,
              cursor: "crosshair",
              borderRadius: further ? "50%" : "1px",
              border: `1.5px solid ${colours.rust}`,
              bgcolor: further ? colours.rustPale : colours.paper,
            }}
          />
        );
      })}
      {spec.kind === "dimension" && viewport && (
        <Figures box={box} piece={{ ...piece, spec }} viewport={viewport} camera={camera} edits={edits} />
      )}
    </>
  );
}

const between = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

/** How few points a piece may have. */
function fewest(spec: AnnotationSpec): number {
  if (spec.kind === "dimension") return 2;
  if (spec.kind === "shape") return pointsOf("shape", spec.form)[0];
  if (spec.kind === "measure") return pointsOf("measure", spec.of)[0];
  return spec.kind === "cloud" ? 2 : 1;
}

type DimensionPiece = Annotation & { spec: Extract<AnnotationSpec, { kind: "dimension" }> };

/** The figures of a dimension: where one is dragged to, it stays. */
function Figures({
  box,
  piece,
  viewport,
  camera,
  edits,
}: Pick<Props, "box" | "camera" | "edits"> & { piece: DimensionPiece; viewport: Viewport }) {
  const { spec } = piece;
  const [dragged, setDragged] = useState<{ k: number; by: Point } | null>(null);
  // Along the line as it is read: from the left, or from below where it stands upright.
  let [x, y] = turned(wayOf(spec.measures, box.at), geometryOf(viewport).turn);
  if (x < -1e-9 || (Math.abs(x) <= 1e-9 && y < 0)) [x, y] = [-x, -y];
  const press = (event: PointerEvent, k: number) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    drag(event, {
      move: (dx, dy) => setDragged({ k, by: [dx, dy] }),
      end: (moved, e) => {
        if (!moved) return;
        const dx = (e.clientX - event.clientX) / camera.scale;
        const dy = (event.clientY - e.clientY) / camera.scale;
        const before = spec.shifts[k] ?? [0, 0];
        const now: [number, number] = [before[0] + dx * x + dy * y, before[1] - dx * y + dy * x];
        const shifts = Array.from(
          { length: Math.max(spec.shifts.length, k + 1) },
          (_, n): [number, number] => (n === k ? [tenth(now[0]), tenth(now[1])] : (spec.shifts[n] ?? [0, 0])),
        );
        void edits.changeSpec(piece, { shifts }, t("move a figure"));
      },
      onEnd: () => setDragged(null),
    });
  };
  // Figures stand in the order in which the line is read, lengths in that of the points along it.
  const backward = turned(wayOf(spec.measures, box.at), geometryOf(viewport).turn)[0] < -1e-9;
  return box.figures.map((figure, k) => {
    const [left, top] = toScreen(camera, figure.x, figure.y + figure.height);
    const length = backward ? box.figures.length - 1 - k : k;
    const [dx, dy] = dragged?.k === length ? dragged.by : [0, 0];
    return (
      <Box
        key={k}
        role="button"
        aria-label={t("Figure {k}", { k: k + 1 })}
        title={t("Drag to where it reads better")}
        onPointerDown={(event) => press(event, length)}
        sx={{
          position: "absolute",
          left: left + dx - 1,
          top: top + dy - 1,
          width: figure.width * camera.scale + 2,
          height: figure.height * camera.scale + 2,
          zIndex: 4,
          cursor: "grab",
          outline: `1px dashed ${colours.rust}88`,
        }}
      />
    );
  });
}

const tenth = (mm: number) => Math.round(mm * 10) / 10;
