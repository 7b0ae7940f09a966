/** A table under the hand: dragged to where it is to lie; it fills itself. */
import Box from "@mui/material/Box";
import { useState, type PointerEvent } from "react";
import { colours } from "../theme/theme";
import { drag } from "./dragging";
import { toScreen, type Box as PaperBox, type Look } from "./geometry";

interface Props {
  box: PaperBox;
  look: Look;
  name: string;
  /** Its upper left corner, paper mm. */
  onMove: (at: { x: number; y: number }) => void;
}

export function TableFrame({ box, look, name, onMove }: Props) {
  const [by, setBy] = useState<readonly [number, number] | null>(null);
  const [dx, dy] = by ?? [0, 0];
  const [left, top] = toScreen(look, box.x, box.y + box.height);
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const place = (px: number, py: number) => ({ x: Math.round((box.x + px / look.scale) * 10) / 10, y: Math.round((box.y + box.height - py / look.scale) * 10) / 10 });
    drag(event, {
      move: (px, py) => setBy([px, py]),
      end: (dragged, e) => dragged && onMove(place(e.clientX - event.clientX, e.clientY - event.clientY)),
      letGo: () => setBy(null),
    });
  };
  return (
    <Box
      role="img"
      aria-label={name}
      title={`${name}: drag it to where it is to lie`}
      onPointerDown={press}
      sx={{
        position: "absolute",
        left: left + dx,
        top: top + dy,
        width: box.width * look.scale,
        height: box.height * look.scale,
        cursor: "move",
        zIndex: 1,
        outline: by ? `1.5px solid ${colours.rust}` : "none",
        "&:hover": { outline: `1px dashed ${colours.sandShade}` },
      }}
    />
  );
}
