/** Everything on a sheet that can be taken hold of while it is composed. */
import Box from "@mui/material/Box";
import { useEffect, useMemo, useState } from "react";
import type { DisplayList, Sheet, Viewport } from "../../../api/client";
import { Later } from "../../../components/Later";
import { useFields } from "../../../api/sheets";
import {
  filling,
  geometryOf,
  type Camera,
  type Extents,
  type Geometry,
  type Point,
} from "../../../canvas/geometry";
import { pictures } from "../../../canvas/pictures";
import { REST } from "../../../canvas/still";
import { useAnnotating } from "../../../stores/annotating";
import { useBoard } from "../../../stores/board";
import { useSelection } from "../../../stores/selection";
import { useTouching } from "../../../stores/touching";
import { FieldRow } from "../FieldRow";
import type { AnnotationEdits } from "../annotate/annotationCommands";
import type { Edits } from "../sheetCommands";
import type { Annotate } from "../annotate/useAnnotate";
import { TouchUpOverlay } from "../touchup/TouchUpOverlay";
import type { TouchUps } from "../touchup/useTouchUp";
import type { SheetSet } from "../useSet";
import { AlignmentLines } from "./AlignmentLines";
import { AnnotateOverlay } from "../annotate/AnnotateOverlay";
import { AnnotationTools } from "../annotate/AnnotationTools";
import { FieldFrames } from "./FieldFrames";
import { Guides } from "./Guides";
import { HeldByOthers } from "./HeldByOthers";
import { MarkLinks } from "./MarkLinks";
import { Movable } from "./Movable";
import { PieceFrames } from "../annotate/PieceFrames";
import { Unprintable } from "./Unprintable";
import { ViewportFrame } from "./ViewportFrame";
import { t } from "../../../words/words";

const NOTHING: never[] = [];
/** How near to a line a double click takes its element; pixels. */
const REACH = 8;

interface Props {
  set: SheetSet;
  sheet: Sheet;
  display: DisplayList;
  camera: Camera;
  edits: Edits;
  annotation: AnnotationEdits;
  annotating: Annotate;
  touchUps: TouchUps;
  onProject: () => void;
  /** To where a view stands first in the register. */
  onGo: (view: string) => void;
  /** An element was moved to the middle of a viewport. */
  onPick: (viewport: string, element: string) => void;
}

/** So many pieces of annotation are not laid out anew for every step of a zoom. */
const MANY = 60;

/** The camera as it was when it rested last, where that is wanted; else as it is. */
function useRestingCamera(camera: Camera, wanted: boolean): Camera {
  const [resting, setResting] = useState(camera);
  useEffect(() => {
    const timer = window.setTimeout(() => setResting(camera), REST);
    return () => window.clearTimeout(timer);
  }, [camera]);
  return wanted ? resting : camera;
}

/** How what is laid out for one camera is seen with another. */
const moved = (from: Camera, to: Camera): string | undefined => {
  if (from === to) return undefined;
  const by = to.scale / from.scale;
  return `translate(${to.x - from.x * by}px, ${to.y - from.y * by}px) scale(${by})`;
};

export function SheetOverlay({
  set,
  sheet,
  display,
  camera,
  edits,
  annotation,
  annotating,
  touchUps,
  onProject,
  onGo,
  onPick,
}: Props) {
  const { on, viewOf, asPlaced } = set;
  const touching = useTouching((s) => s.viewport);
  const touched = on.find((v) => v.id === touching);
  const resting = useRestingCamera(camera, display.pieces.length > MANY);
  const { data: fields = NOTHING } = useFields();
  const drag = useMemo(
    () => ({
      moving: () => {
        const ids = useSelection.getState().selected;
        return on.filter((v) => ids.includes(v.id) && !v.pinned).map(asPlaced);
      },
      field: () => {
        const ids = useSelection.getState().selected;
        const [x = 0, y = 0, width = 0, height = 0] = sheet.free_area;
        const paper = { x: 0, y: 0, width: display.width, height: display.height };
        return {
          others: on.filter((v) => !ids.includes(v.id)).map(asPlaced),
          frames: [paper, { x, y, width, height }],
          guides: sheet.guides ?? {},
        };
      },
    }),
    [on, asPlaced, sheet, display],
  );
  const toMiddle = async (v: Viewport, at: Point) => {
    const { camera: now } = useBoard.getState();
    if (!v.linework || !now || v.pinned) return;
    const found = await pictures.elementAt(v.linework, at, REACH / now.scale / v.ratio);
    if (!found) return;
    const [centre_u, centre_v] = found.middle;
    await edits.change([v], { centre_u, centre_v }, t("centre on an element"));
    onPick(v.id, found.element);
  };
  /** What has no scale fills its frame, whatever becomes of that. */
  const fitted = (v: Viewport) => (g: Geometry) =>
    viewOf(v.view)?.spec.kind === "perspective" && v.extents
      ? filling(g, v.extents as unknown as Extents)
      : g;
  const geometryFor = (view: string) => {
    const first = set.firstOf(view);
    return {
      name: viewOf(view)?.name ?? "",
      sheet: first ? (set.sheets.find((s) => s.id === first.sheet)?.number ?? "") : null,
    };
  };
  return (
    <>
      <Unprintable camera={camera} paper={display} margins={sheet.unprintable?.margins ?? NOTHING} />
      <Guides
        camera={camera}
        paper={display}
        guides={sheet.guides ?? {}}
        onChange={(guides, what) => void edits.changeSheet(sheet, { guides }, what)}
      />
      {on.map((v, k) => (
        <ViewportFrame
          key={v.id}
          id={v.id}
          label={t("Viewport {k}: {name}, {scale}", {
            k: k + 1,
            name: viewOf(v.view)?.name ?? "",
            scale: v.scale,
          })}
          geometry={geometryOf(v)}
          camera={camera}
          pinned={v.pinned}
          fitted={fitted(v)}
          moving={drag.moving}
          field={drag.field}
          onChange={(changed, what) => void edits.reshape(changed, what)}
          onInside={(at) => void toMiddle(v, at)}
        />
      ))}
      <DrawingLists display={display} camera={camera} sheet={sheet} edits={edits} />
      <DrawingTitles set={set} display={display} camera={camera} edits={edits} />
      <RoomNames set={set} display={display} camera={camera} edits={edits} />
      <FieldFrames
        boxes={display.fields}
        fields={fields}
        camera={camera}
        editor={(field) => <FieldRow alone field={field} sheet={sheet} edits={edits} onProject={onProject} />}
      />
      <MarkLinks
        links={display.links}
        camera={camera}
        of={geometryFor}
        onGo={onGo}
        onMove={(viewport, view, bubble, count, by) => {
          const row = on.find((v) => v.id === viewport);
          if (row) void edits.moveMark(row, view, bubble, count, by);
        }}
      />
      <div
        style={{ position: "absolute", zIndex: 3, transformOrigin: "0 0", transform: moved(resting, camera) }}
      >
        <PieceFrames
          sheet={sheet.id}
          boxes={display.pieces}
          pieces={set.pieces}
          on={on}
          camera={resting}
          annotating={annotating}
          edits={annotation}
        />
      </div>
      <HeldByOthers on={on} pieces={display.pieces} camera={camera} />
      <AlignmentLines camera={camera} />
      <AnnotateOverlay camera={camera} on={on} commands={annotating} />
      {touched ? (
        <TouchUpOverlay camera={camera} viewport={touched} display={display} commands={touchUps} />
      ) : (
        <Later>
          <AnnotationTools set={set} display={display} edits={annotation} />
        </Later>
      )}
      {!on.length && !display.pieces.length && !sheet.drawing_list && (
        <EmptySheet camera={camera} sheet={sheet} hasViews={set.views.length > 0} />
      )}
    </>
  );
}

function DrawingLists({
  display,
  camera,
  sheet,
  edits,
}: Pick<Props, "display" | "camera" | "sheet" | "edits">) {
  return display.tables.map((box, k) => (
    <Movable
      key={k}
      box={box}
      camera={camera}
      name={t("List of drawings")}
      onMove={([dx, dy]) =>
        void edits.changeSheet(
          sheet,
          { drawing_list: { ...sheet.drawing_list, x: box.x + dx, y: box.y + box.height + dy } },
          t("move the list of drawings"),
        )
      }
    />
  ));
}

function DrawingTitles({ set, display, camera, edits }: Pick<Props, "set" | "display" | "camera" | "edits">) {
  return display.titles.map(({ viewport: of, box }) => {
    const row = set.on.find((v) => v.id === of);
    if (!row) return null;
    const [x = 0, y = 0] = row.title_offset;
    const move = (title_offset: [number, number]) =>
      void edits.change([row], { title_offset }, t("move a drawing title"));
    return (
      <Movable
        key={of}
        box={box}
        camera={camera}
        name={t("Drawing title of {name}", { name: set.viewOf(row.view)?.name ?? "" })}
        onMove={([dx, dy]) => move([x + dx, y + dy])}
        onReset={() => (x || y) && move([0, 0])}
      />
    );
  });
}

/** Names of rooms are taken hold of in the chosen viewport; elsewhere a press is for the viewport. */
function RoomNames({ set, display, camera, edits }: Pick<Props, "set" | "display" | "camera" | "edits">) {
  const selected = useSelection((s) => s.selected);
  return display.rooms
    .filter((room) => selected.includes(room.viewport))
    .map(({ viewport: of, room, text, box }) => {
      const row = set.on.find((v) => v.id === of);
      if (!row || row.pinned) return null;
      const { [room]: offset, ...others } = row.room_offsets;
      const [x = 0, y = 0] = offset ?? [];
      const move = (room_offsets: Viewport["room_offsets"]) =>
        void edits.change([row], { room_offsets }, t("move the name {text}", { text }));
      return (
        <Movable
          key={`${of} ${room}`}
          box={box}
          camera={camera}
          name={t("Room {text}", { text })}
          onMove={([dx, dy]) => move({ ...others, [room]: [x + dx, y + dy] })}
          onReset={() => offset && move(others)}
        />
      );
    });
}

function EmptySheet({ camera, sheet, hasViews }: { camera: Camera; sheet: Sheet; hasViews: boolean }) {
  const tool = useAnnotating((s) => s.tool);
  if (tool) return null;
  const [x = 0, y = 0, width = 0, height = 0] = sheet.free_area;
  return (
    <Box
      sx={{
        position: "absolute",
        left: camera.x + x * camera.scale,
        top: camera.y - (y + height) * camera.scale,
        width: width * camera.scale,
        height: height * camera.scale,
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        color: "text.secondary",
        textAlign: "center",
        pointerEvents: "none",
      }}
    >
      {hasViews
        ? t("Nothing is placed on this sheet. Open the views (V) and drag a card here.")
        : t("There is no view to place yet. Import a building file at the Model station.")}
    </Box>
  );
}
