/** The parts of a template under the pointer while it is edited: chosen, dragged, and their ends moved. */
import Box from "@mui/material/Box";
import { useState, type PointerEvent } from "react";
import type { DisplayList, Part } from "../../../api/client";
import { colours } from "../../../theme/theme";
import { drag } from "../../../canvas/drag";
import { endsOf, type Ends } from "../../../canvas/templateParts";
import {
  toScreen,
  type Box as PaperBox,
  type Geometry,
  type Camera,
  type Point,
} from "../../../canvas/geometry";
import { snapped, type Placed } from "../../../canvas/snapping";
import { select, useSelection } from "../../../stores/selection";
import { useGesture } from "../../../stores/gesture";
import { partName, partNumber } from "../../../canvas/templateParts";
import { t } from "../../../words/words";

interface Props {
  display: DisplayList;
  parts: readonly Part[];
  camera: Camera;
  nameOf: (part: Part) => string;
  onLay: (ends: ReadonlyMap<number, Ends>, what: string) => void;
}

/** A box to be clicked is at least so large, or a line could not be hit; pixels. */
const MIN_SIZE = 9;

const boxOf = ([x0, y0, x1, y1]: Ends): PaperBox => ({
  x: Math.min(x0, x1),
  y: Math.min(y0, y1),
  width: Math.abs(x1 - x0),
  height: Math.abs(y1 - y0),
});
const placed = (k: number, ends: Ends): Placed => ({
  id: partName(k),
  name: "",
  axes: null,
  geometry: {
    ...boxOf(ends),
    ratio: 1,
    turn: 0,
    centre_u: 0,
    centre_v: 0,
    shape: "rectangle",
    corners: [],
  } satisfies Geometry,
});

export function PartFrames({ display, parts, camera, nameOf, onLay }: Props) {
  const selected = useSelection((s) => s.selected);
  /** Where parts being dragged are. */
  const [draft, setDraft] = useState<ReadonlyMap<number, Ends> | null>(null);
  const at = (k: number): Ends => {
    const part = parts[k];
    return draft?.get(k) ?? (part ? endsOf(part, display) : [0, 0, 0, 0]);
  };

  function follow(
    event: PointerEvent,
    what: string,
    change: (dx: number, dy: number, free: boolean) => ReadonlyMap<number, Ends>,
  ) {
    if (event.button !== 0) return;
    event.stopPropagation();
    let last: ReadonlyMap<number, Ends> | null = null;
    drag(event, {
      move: (px, py, e) => {
        last = change(px / camera.scale, -py / camera.scale, e.altKey);
        setDraft(last);
      },
      end: () => last && onLay(last, what),
      onEnd: () => {
        useGesture.setState({ alignments: [] });
        setDraft(null);
      },
    });
  }

  function press(event: PointerEvent, k: number) {
    const chosen = useSelection.getState().selected;
    const name = partName(k);
    if (event.shiftKey) {
      event.stopPropagation();
      select(chosen.includes(name) ? chosen.filter((s) => s !== name) : [...chosen, name]);
      return;
    }
    if (!chosen.includes(name)) select(name);
    (event.currentTarget as HTMLElement).focus({ preventScroll: true });
    const dragged = useSelection
      .getState()
      .selected.map(partNumber)
      .filter((n) => n >= 0);
    const before = new Map(dragged.map((n) => [n, at(n)] as const));
    const others = parts.flatMap((_, n) => (dragged.includes(n) ? [] : [placed(n, at(n))]));
    const field = { others, frames: [display.frame], guides: {} };
    follow(
      event,
      dragged.length > 1 ? t("move {count} parts", { count: dragged.length }) : t("move a part"),
      (dx, dy, free) => {
        const { by, alignments } = free
          ? { by: [dx, dy] as const, alignments: [] }
          : snapped(
              dragged.map((n) => placed(n, at(n))),
              field,
              dx,
              dy,
              camera.scale,
            );
        useGesture.setState({ alignments });
        return new Map(
          [...before].map(([n, [x0, y0, x1, y1]]) => [
            n,
            [x0 + by[0], y0 + by[1], x1 + by[0], y1 + by[1]] as const,
          ]),
        );
      },
    );
  }

  /** Ends are laid on half millimetres, or where Alt is held anywhere. */
  const half = (value: number, free: boolean) =>
    free ? Math.round(value * 10) / 10 : Math.round(value * 2) / 2;
  const handles = (k: number): readonly (readonly [Point, readonly number[], string])[] => {
    const [x0, y0, x1, y1] = at(k);
    if (parts[k]?.kind === "line")
      return [
        [[x0, y0], [0, 1], t("first end")],
        [[x1, y1], [2, 3], t("second end")],
      ];
    return [
      [[x0, y0], [0, 1], t("first corner")],
      [[x1, y0], [2, 1], t("second corner")],
      [[x1, y1], [2, 3], t("third corner")],
      [[x0, y1], [0, 3], t("fourth corner")],
      [[(x0 + x1) / 2, y0], [1], "bottom"],
      [[x1, (y0 + y1) / 2], [2], t("right side")],
      [[(x0 + x1) / 2, y1], [3], "top"],
      [[x0, (y0 + y1) / 2], [0], t("left side")],
    ];
  };

  return parts.map((part, k) => {
    const ends = at(k);
    const box = boxOf(ends);
    const chosen = selected.includes(partName(k));
    const [left, top] = toScreen(camera, box.x, box.y + box.height);
    const [width, height] = [
      Math.max(box.width * camera.scale, MIN_SIZE),
      Math.max(box.height * camera.scale, MIN_SIZE),
    ];
    const [dx, dy] = [(width - box.width * camera.scale) / 2, (height - box.height * camera.scale) / 2];
    return (
      <Box key={k}>
        <Box
          role="button"
          tabIndex={0}
          aria-label={t("Part: {part}", { part: nameOf(part) })}
          aria-pressed={chosen}
          title={nameOf(part)}
          onPointerDown={(event) => press(event, k)}
          onFocus={() => !useSelection.getState().selected.length && select(partName(k))}
          sx={{
            position: "absolute",
            left: left - dx,
            top: top - dy,
            width,
            height,
            // What is small lies above what is large, so that everything can be hit.
            zIndex: chosen ? 4000 : Math.max(2, 3000 - Math.round(box.width + box.height)),
            cursor: "move",
            boxShadow: chosen ? `inset 0 0 0 1.5px ${colours.rust}` : undefined,
            outline: "none",
            "&:hover, &:focus-visible": {
              boxShadow: `inset 0 0 0 1.5px ${chosen ? colours.rust : colours.sandShade}`,
            },
          }}
        />
        {chosen &&
          selected.length === 1 &&
          handles(k).map(([[x, y], figures, name]) => {
            const [px, py] = toScreen(camera, x, y);
            return (
              <Box
                key={name}
                data-handle={name}
                title={name}
                onPointerDown={(event) =>
                  follow(
                    event,
                    t("change a part's size"),
                    (mx, my, free) =>
                      new Map([
                        [
                          k,
                          ends.map((v, n) =>
                            figures.includes(n) ? half(v + (n % 2 ? my : mx), free) : v,
                          ) as unknown as Ends,
                        ],
                      ]),
                  )
                }
                sx={{
                  position: "absolute",
                  left: px,
                  top: py,
                  width: 15,
                  height: 15,
                  m: "-7.5px",
                  zIndex: 4001,
                  cursor: "crosshair",
                  "&::after": {
                    content: '""',
                    position: "absolute",
                    inset: 4,
                    bgcolor: colours.paper,
                    border: `1.5px solid ${colours.rust}`,
                    borderRadius: "50%",
                  },
                }}
              />
            );
          })}
      </Box>
    );
  });
}
