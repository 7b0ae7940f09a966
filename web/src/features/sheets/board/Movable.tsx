/**
 * Something on the sheet under the pointer that fills itself: a table, a drawing title. Dragged to where it
 * is to lie.
 */
import Box from "@mui/material/Box";
import { useState, type PointerEvent } from "react";
import { colours } from "../../../theme/theme";
import { drag } from "../../../canvas/drag";
import { toScreen, type Box as PaperBox, type Camera, type Point } from "../../../canvas/geometry";
import { t } from "../../../words/words";

interface Props {
  box: PaperBox;
  camera: Camera;
  name: string;
  /** It was dragged by so much, paper mm. */
  onMove: (by: Point) => void;
  /** A double click puts it back where it stands by itself. */
  onReset?: () => void;
}

/** To a tenth of a millimetre: more is nobody's intention. */
export const tenth = (value: number) => Math.round(value * 10) / 10;

export function Movable({ box, camera, name, onMove, onReset }: Props) {
  const [by, setBy] = useState<Point | null>(null);
  const [dx, dy] = by ?? [0, 0];
  const [left, top] = toScreen(camera, box.x, box.y + box.height);
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    drag(event, {
      move: (px, py) => setBy([px, py]),
      end: (dragged, e) =>
        dragged &&
        onMove([
          tenth((e.clientX - event.clientX) / camera.scale),
          tenth((event.clientY - e.clientY) / camera.scale),
        ]),
      onEnd: () => setBy(null),
    });
  };
  return (
    <Box
      role="img"
      aria-label={name}
      title={t("{name}: drag it to move it{which}", {
        name,
        which: onReset ? t("; a double click restores it") : "",
      })}
      onPointerDown={press}
      onDoubleClick={onReset}
      style={{
        left: left + dx,
        top: top + dy,
        width: box.width * camera.scale,
        height: box.height * camera.scale,
      }}
      sx={{
        position: "absolute",
        cursor: "move",
        zIndex: 1,
        outline: by ? `1.5px solid ${colours.rust}` : "none",
        "&:hover": { outline: `1px dashed ${colours.sandShade}` },
      }}
    />
  );
}
