/** A sheet that is reviewed: moved and zoomed by touch, wheel and keys, with the marks over it. */
import Box from "@mui/material/Box";
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type ReactNode } from "react";
import type { LookedAtSheet, Mark, MarkKind, Said } from "../../api/client";
import { begun, drawnTo, isDrawn, pointsOf } from "../../canvas/commentMarks";
import { toPaper, zoomed, type Camera, type Point } from "../../canvas/geometry";
import { tilesSeen } from "../../canvas/tiles";
import { CommentMarks, Lines } from "../../components/CommentMarks";
import { usePixelRatio } from "../../components/usePixelRatio";
import { colours } from "../../theme/theme";
import { keyed, lookingAt, pinched, whole } from "./gestures";
import { measuredMark } from "./measuring";
import { tileAddress } from "./reviewed";
import { t } from "../../words/words";

/** A place that is jumped to is shown at least so large; pixels for a mm. */
const CLOSE = 3;

interface Props {
  secret: string;
  sheet: LookedAtSheet;
  said: readonly Said[];
  chosen: Said | null;
  /** What a press draws; null to look only. */
  tool: MarkKind | null;
  /** What is about to be said. */
  draft: { marks: readonly Mark[]; text: string } | null;
  onChoose: (id: string) => void;
  onDraw: (mark: Mark) => void;
  children?: ReactNode;
}

export function SheetViewer({ secret, sheet, said, chosen, tool, draft, onChoose, onDraw, children }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const [space, setSpace] = useState({ width: 0, height: 0 });
  const [camera, setCamera] = useState<Camera | null>(null);
  const [drawing, setDrawing] = useState<Mark | null>(null);
  const fingers = useRef(new Map<number, { x: number; y: number }>());
  useLayoutEffect(() => {
    const element = place.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => {
      if (!entry) return;
      const { width, height } = entry.contentRect;
      setSpace({ width, height });
      setCamera((now) => now ?? whole(sheet, { width, height }));
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, [sheet]);

  const [jumped, setJumped] = useState<string | null>(null);
  if (chosen && chosen.id !== jumped && camera && space.width) {
    setJumped(chosen.id);
    const [mark] = chosen.marks;
    const [at] = mark ? pointsOf(mark) : [];
    if (at && !isSeen(camera, at, space)) setCamera(lookingAt(camera, at, space, CLOSE));
  }

  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const factor = Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0015));
      setCamera((now) => now && zoomed(now, factor, event.clientX - box.left, event.clientY - box.top));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, []);

  const at = (event: { clientX: number; clientY: number }) => {
    const box = place.current?.getBoundingClientRect();
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) };
  };
  const paper = (finger: { x: number; y: number }): Point =>
    camera ? toPaper(camera, finger.x, finger.y) : [0, 0];

  const down = (event: React.PointerEvent) => {
    if (event.button > 0 || !camera) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    fingers.current.set(event.pointerId, at(event));
    // A second finger zooms, whatever the first was about to draw.
    if (fingers.current.size > 1) setDrawing(null);
    else if (tool) setDrawing(begun(tool, paper(at(event))));
  };
  const move = (event: React.PointerEvent) => {
    const before = fingers.current.get(event.pointerId);
    if (!before || !camera) return;
    const now = at(event);
    const others = [...fingers.current].filter(([id]) => id !== event.pointerId).map(([, f]) => f);
    const [other] = others;
    fingers.current.set(event.pointerId, now);
    if (other) setCamera((c) => c && pinched(c, [before, other], [now, other]));
    else if (drawing) setDrawing((d) => d && measuredMark(drawnTo(d, paper(now), camera.scale), sheet));
    else if (!tool) setCamera((c) => c && { ...c, x: c.x + now.x - before.x, y: c.y + now.y - before.y });
  };
  const up = (event: React.PointerEvent) => {
    fingers.current.delete(event.pointerId);
    if (drawing && camera && isDrawn(drawing, camera.scale)) onDraw(drawing);
    setDrawing(null);
  };
  const key = (event: React.KeyboardEvent) => {
    if (event.target !== event.currentTarget || !camera) return;
    // By keys a point is put in the middle of what is seen.
    if (event.key === "Enter" && tool) {
      const middle = paper({ x: space.width / 2, y: space.height / 2 });
      onDraw(
        drawnTo(begun(tool, middle), [middle[0] + 60 / camera.scale, middle[1] + 40 / camera.scale], 100),
      );
      return;
    }
    const next = event.key === "0" ? whole(sheet, space) : keyed(event.key, camera, space);
    if (!next) return;
    event.preventDefault();
    setCamera(next);
  };

  const dpr = usePixelRatio();
  const tiles = useMemo(
    () => (camera ? tilesSeen(sheet.levels, sheet, camera, space, dpr) : []),
    [sheet, camera, space, dpr],
  );
  const about = `${sheet.number} ${sheet.title}`;
  return (
    <Box
      ref={place}
      role="application"
      aria-label={t("Sheet {about}. Arrow keys move it, plus and minus zoom, 0 shows all of it.", { about })}
      tabIndex={0}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={key}
      sx={{
        position: "relative",
        flex: 1,
        minWidth: 0,
        minHeight: 0,
        overflow: "hidden",
        bgcolor: colours.sand,
        touchAction: "none",
        userSelect: "none",
        cursor: tool ? "crosshair" : "grab",
        "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
      }}
    >
      {camera && (
        <>
          <Box
            sx={{ position: "absolute", bgcolor: colours.paper }}
            style={placed(camera, sheet, { left: 0, top: 0, ...sheet })}
          />
          {tiles.map((tile) => (
            <img
              key={`${tile.level} ${tile.row} ${tile.column}`}
              src={tileAddress(secret, sheet.id, tile.level, tile.row, tile.column)}
              alt=""
              draggable={false}
              style={{ position: "absolute", ...placed(camera, sheet, tile) }}
            />
          ))}
          <CommentMarks comments={said} camera={camera} chosen={chosen?.id ?? null} onChoose={onChoose} />
          <Box
            component="svg"
            aria-hidden
            sx={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" }}
          >
            <Lines
              marks={[...(draft?.marks ?? []), ...(drawing ? [drawing] : [])]}
              text={draft?.text || t("Your words")}
              camera={camera}
              colour={colours.rust}
              strong
            />
            {[...(draft?.marks ?? []), ...(drawing ? [drawing] : [])]
              .filter((mark) => mark.kind === "point")
              .map((mark, k) => {
                const [[x, y] = [0, 0]] = pointsOf(mark);
                return (
                  <circle
                    key={k}
                    cx={camera.x + x * camera.scale}
                    cy={camera.y - y * camera.scale}
                    r={7}
                    fill={colours.rust}
                    stroke="#fff"
                    strokeWidth={2}
                  />
                );
              })}
          </Box>
        </>
      )}
      {children}
    </Box>
  );
}

interface Piece {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Where a piece of a sheet lies on the screen: by whole pixels, so that no seam shows between two. */
function placed(camera: Camera, sheet: { height: number }, piece: Piece) {
  const across = (x: number) => Math.round(camera.x + x * camera.scale);
  const down = (y: number) => Math.round(camera.y - (sheet.height - y) * camera.scale);
  const [left, top] = [across(piece.left), down(piece.top)];
  return {
    left,
    top,
    width: across(piece.left + piece.width) - left,
    height: down(piece.top + piece.height) - top,
  };
}

/** Whether a place of the sheet is well within sight. */
function isSeen(camera: Camera, [x, y]: Point, space: { width: number; height: number }): boolean {
  const [px, py] = [camera.x + x * camera.scale, camera.y - y * camera.scale];
  return px > 20 && py > 20 && px < space.width - 20 && py < space.height - 20;
}
