/**
 * Guides: lines across the sheet that are pulled out of its rulers, and that what is moved is put in line
 * with.
 */
import Box from "@mui/material/Box";
import { useState, type PointerEvent } from "react";
import { colours } from "../../../theme/theme";
import { drag } from "../../../canvas/drag";
import { toScreen, type Camera } from "../../../canvas/geometry";
import { t } from "../../../words/words";

export interface GuideLines {
  x?: number[];
  y?: number[];
}

interface Props {
  camera: Camera;
  paper: { width: number; height: number };
  guides: GuideLines;
  onChange: (guides: GuideLines, what: string) => void;
}

type Way = "x" | "y";
/** How broad the rulers are under the pointer, beside the paper; pixels. */
const RULER = 22;

export function Guides({ camera, paper, guides, onChange }: Props) {
  const [held, setHeld] = useState<{ way: Way; at: number; of: number | null } | null>(null);
  const [left, bottom] = toScreen(camera, 0, 0);
  const [right, top] = toScreen(camera, paper.width, paper.height);

  /**
   * Drag a guide; `of` is its number, null for a new one. Put back beside the paper, it is gone.
   */
  function hold(event: PointerEvent, way: Way, of: number | null) {
    if (event.button !== 0) return;
    event.stopPropagation();
    const board = document.getElementById("board")?.getBoundingClientRect();
    const place = (e: globalThis.PointerEvent) => {
      const at =
        way === "x"
          ? (e.clientX - (board?.left ?? 0) - camera.x) / camera.scale
          : (camera.y - (e.clientY - (board?.top ?? 0))) / camera.scale;
      return Math.round(at * 2) / 2;
    };
    drag(event, {
      move: (_dx, _dy, e) => setHeld({ way, at: place(e), of }),
      end: (dragged, e) => {
        if (!dragged) return;
        const at = place(e);
        const on = at > 0 && at < paper[way === "x" ? "width" : "height"];
        const others = (guides[way] ?? []).filter((_, k) => k !== of);
        if (on || of !== null)
          onChange(
            { ...guides, [way]: on ? [...others, at] : others },
            on ? (of === null ? t("place a guide") : t("move a guide")) : t("remove a guide"),
          );
      },
      onEnd: () => setHeld(null),
    });
  }

  const ruler = (way: Way) => (
    <Box
      data-ruler={way === "x" ? "left" : "top"}
      title={t("Drag a guide out of the ruler")}
      onPointerDown={(event) => hold(event, way, null)}
      sx={{
        position: "absolute",
        cursor: way === "x" ? "ew-resize" : "ns-resize",
        ...(way === "x"
          ? { left: left - RULER - 4, top, width: RULER, height: bottom - top }
          : { left, top: top - RULER - 4, width: right - left, height: RULER }),
      }}
    />
  );
  const line = (way: Way, at: number, of: number | null) => {
    const [x, y] = toScreen(camera, at, at);
    const shown = held && held.of === of && held.way === way ? colours.rust : colours.sea;
    return (
      <Box
        key={`${way}${of}`}
        data-guide={way}
        title={t("{at} mm", { at })}
        onPointerDown={of === null ? undefined : (event) => hold(event, way, of)}
        sx={{
          position: "absolute",
          zIndex: 3,
          pointerEvents: of === null ? "none" : "auto",
          cursor: way === "x" ? "ew-resize" : "ns-resize",
          ...(way === "x"
            ? { left: x - 3, top: top - 8, width: 7, height: bottom - top + 16 }
            : { left: left - 8, top: y - 3, width: right - left + 16, height: 7 }),
          "&::after": {
            content: '""',
            position: "absolute",
            bgcolor: shown,
            opacity: 0.75,
            ...(way === "x"
              ? { left: 3, width: "1px", top: 0, bottom: 0 }
              : { top: 3, height: "1px", left: 0, right: 0 }),
          },
        }}
      />
    );
  };
  return (
    <>
      {ruler("x")}
      {ruler("y")}
      {(["x", "y"] as const).flatMap((way) =>
        (guides[way] ?? []).map((at, k) => line(way, held?.way === way && held.of === k ? held.at : at, k)),
      )}
      {held?.of === null && line(held.way, held.at, null)}
    </>
  );
}
