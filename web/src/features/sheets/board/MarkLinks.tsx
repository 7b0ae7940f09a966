/** Marks under the pointer: a click goes to the drawing that one points to, dragging moves its bubble. */
import ButtonBase from "@mui/material/ButtonBase";
import { useState } from "react";
import type { DisplayList } from "../../../api/client";
import { colours } from "../../../theme/theme";
import { drag } from "../../../canvas/drag";
import { toScreen, type Camera, type Point } from "../../../canvas/geometry";
import { tenth } from "./Movable";
import { t } from "../../../words/words";

/** Radius of a mark's bubble; the same as the core has. Paper mm. */
const BUBBLE = 5;

interface Props {
  links: DisplayList["links"];
  camera: Camera;
  /** What a link's view is called, and the sheet on which it stands; null for one that is not placed. */
  of: (view: string) => { name: string; sheet: string | null };
  onGo: (view: string) => void;
  /** One bubble of a view's mark in a viewport, of so many, was dragged by a distance; paper mm. */
  onMove: (viewport: string, view: string, bubble: number, of: number, by: Point) => void;
}

export function MarkLinks({ links, camera, of, onGo, onMove }: Props) {
  const [held, setHeld] = useState<{ link: number; by: Point } | null>(null);
  return links.map(({ viewport, view, at: [x = 0, y = 0] }, k) => {
    const { name, sheet } = of(view);
    const placed = sheet !== null;
    const [left, top] = toScreen(camera, x, y);
    const [dx, dy] = held?.link === k ? held.by : [0, 0];
    const size = 2 * BUBBLE * camera.scale;
    const bubbles = links.filter((l) => l.viewport === viewport && l.view === view);
    const number = bubbles.findIndex((bubble) => bubble === links[k]);
    return (
      <ButtonBase
        key={k}
        aria-label={
          placed
            ? t("Mark: go to {name} on {sheet}", { name, sheet })
            : t("Mark of {name}, which is not placed yet", { name })
        }
        title={t("{name}, {which}\nDrag it clear of the drawing", {
          name,
          which: placed ? t("on {sheet}", { sheet }) : t("not placed yet"),
        })}
        onPointerDown={(event) => {
          if (event.button !== 0) return;
          event.stopPropagation();
          drag(event, {
            move: (px, py) => setHeld({ link: k, by: [px, py] }),
            end: (dragged, e) => {
              if (dragged)
                onMove(viewport, view, number, bubbles.length, [
                  tenth((e.clientX - event.clientX) / camera.scale),
                  tenth((event.clientY - e.clientY) / camera.scale),
                ]);
              else if (placed) onGo(view);
            },
            onEnd: () => setHeld(null),
          });
        }}
        onKeyDown={(event) => event.key === "Enter" && placed && onGo(view)}
        style={{ left: left + dx - size / 2, top: top + dy - size / 2, width: size, height: size }}
        sx={{
          position: "absolute",
          borderRadius: "50%",
          zIndex: 3,
          pointerEvents: "auto",
          border: placed ? undefined : `1.5px dashed ${colours.rust}`,
          outline: held?.link === k ? `1.5px solid ${colours.rust}` : undefined,
          "&:hover": { bgcolor: `${colours.rust}22` },
        }}
      />
    );
  });
}
