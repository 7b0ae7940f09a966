/** A viewport under the hand: its frame, its handles, and what dragging them does. */
import Box from "@mui/material/Box";
import { useEffect, useRef, type PointerEvent } from "react";
import { colours } from "../theme/theme";
import { useDesk } from "./desk";
import { cropped, moved, shifted, toScreen, type Geometry, type Look } from "./geometry";

interface Props {
  id: string;
  label: string;
  geometry: Geometry;
  look: Look;
  onChange: (geometry: Geometry, what: string) => void;
}

type Sides = { west?: true; south?: true; east?: true; north?: true };
const HANDLES: readonly [string, Sides, string, string, string][] = [
  ["upper left corner", { west: true, north: true }, "0%", "0%", "nwse-resize"],
  ["top", { north: true }, "50%", "0%", "ns-resize"],
  ["upper right corner", { east: true, north: true }, "100%", "0%", "nesw-resize"],
  ["right side", { east: true }, "100%", "50%", "ew-resize"],
  ["lower right corner", { east: true, south: true }, "100%", "100%", "nwse-resize"],
  ["bottom", { south: true }, "50%", "100%", "ns-resize"],
  ["lower left corner", { west: true, south: true }, "0%", "100%", "nesw-resize"],
  ["left side", { west: true }, "0%", "50%", "ew-resize"],
];

export function ViewportFrame({ id, label, geometry, look, onChange }: Props) {
  const selected = useDesk((s) => s.selected === id);
  const reachedIn = useDesk((s) => s.reachedIn) && selected;
  const draft = useDesk((s) => (s.draft?.id === id ? s.draft.geometry : null));
  const now = draft ?? geometry;
  const element = useRef<HTMLDivElement>(null);

  // What is selected has the keys, however it came to be selected.
  useEffect(() => {
    if (selected && !document.activeElement?.closest("input, [role=dialog]")) element.current?.focus({ preventScroll: true });
  }, [selected]);

  /** Follow the pointer: `change` gives the geometry for a distance in paper mm. Escape lets go without a change. */
  function follow(event: PointerEvent, what: string, change: (dx: number, dy: number) => Geometry) {
    if (event.button !== 0) return;
    event.stopPropagation();
    const target = event.currentTarget as HTMLElement;
    target.setPointerCapture(event.pointerId);
    const { clientX, clientY } = event;
    let last: Geometry | null = null;
    const move = (e: globalThis.PointerEvent) => {
      const [px, py] = [e.clientX - clientX, e.clientY - clientY];
      if (!last && Math.hypot(px, py) < 3) return;
      last = change(px / look.scale, -py / look.scale);
      useDesk.setState({ draft: { id, geometry: last } });
    };
    const letGo = () => {
      target.removeEventListener("pointermove", move);
      target.removeEventListener("pointerup", end);
      target.removeEventListener("pointercancel", letGo);
      window.removeEventListener("keydown", escape, true);
      useDesk.setState({ draft: null });
    };
    const end = () => {
      if (last) onChange(last, what);
      letGo();
    };
    const escape = (e: KeyboardEvent) => {
      if (e.key !== "Escape") return;
      e.stopPropagation();
      letGo();
    };
    target.addEventListener("pointermove", move);
    target.addEventListener("pointerup", end);
    target.addEventListener("pointercancel", letGo);
    window.addEventListener("keydown", escape, true);
  }

  function press(event: PointerEvent) {
    if (event.button !== 0) return;
    if (!selected) useDesk.getState().select(id);
    element.current?.focus({ preventScroll: true });
    if (reachedIn) follow(event, "move what is seen", (dx, dy) => shifted(geometry, dx, dy));
    else follow(event, "move a viewport", (dx, dy) => moved(geometry, dx, dy));
  }

  const [left, bottom] = toScreen(look, now.x, now.y);
  const [right, top] = toScreen(look, now.x + now.width, now.y + now.height);
  return (
    <Box
      ref={element}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={selected}
      onPointerDown={press}
      onDoubleClick={() => useDesk.getState().select(id, true)}
      onFocus={() => !useDesk.getState().draft && !selected && useDesk.getState().select(id)}
      sx={{
        position: "absolute",
        left,
        top,
        width: right - left,
        height: bottom - top,
        zIndex: selected ? 2 : 1,
        cursor: reachedIn ? "grab" : "move",
        outline: selected ? `1.5px solid ${colours.rust}` : "1px dashed transparent",
        boxShadow: reachedIn ? `inset 0 0 0 4px ${colours.rust}33` : "none",
        "&:hover": selected ? {} : { outlineColor: colours.sandShade },
      }}
    >
      {selected &&
        !reachedIn &&
        HANDLES.map(([name, sides, x, y, cursor]) => (
          <Box
            key={name}
            data-handle={name}
            title={`Crop: ${name}`}
            onPointerDown={(event) =>
              follow(event, "crop a viewport", (dx, dy) =>
                cropped(geometry, {
                  west: sides.west && dx,
                  east: sides.east && dx,
                  south: sides.south && dy,
                  north: sides.north && dy,
                }),
              )
            }
            sx={{
              position: "absolute",
              left: x,
              top: y,
              width: 17,
              height: 17,
              m: "-8.5px",
              cursor,
              "&::after": {
                content: '""',
                position: "absolute",
                inset: 5,
                bgcolor: colours.paper,
                border: `1.5px solid ${colours.rust}`,
                borderRadius: "50%",
              },
            }}
          />
        ))}
    </Box>
  );
}
