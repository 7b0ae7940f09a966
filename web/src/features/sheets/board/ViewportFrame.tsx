/** A viewport under the pointer: its outline, its handles, and what dragging them does. */
import Box from "@mui/material/Box";
import { useEffect, useRef, type PointerEvent } from "react";
import { colours } from "../../../theme/theme";
import { drag } from "../../../canvas/drag";
import {
  cropped,
  moved,
  outlineOf,
  reshaped,
  shifted,
  toScreen,
  turned,
  type Geometry,
  type Camera,
  type Point,
  type Sides,
} from "../../../canvas/geometry";
import { snapped, type Placed } from "../../../canvas/snapping";
import { select, useSelection } from "../../../stores/selection";
import { useGesture } from "../../../stores/gesture";
import { t } from "../../../words/words";

export type Changed = ReadonlyMap<string, Geometry>;
type Field = Parameters<typeof snapped>[1];

interface Props {
  id: string;
  label: string;
  geometry: Geometry;
  camera: Camera;
  pinned: boolean;
  /** What a crop makes of it beyond the crop itself: what has no scale fills its frame again. */
  fitted: (geometry: Geometry) => Geometry;
  /** Where all that may be moved together lies, and what it may be put in line with. */
  moving: () => Placed[];
  field: () => Field;
  onChange: (changed: Changed, what: string) => void;
  /** A double click on something that is seen through it, in u and v. */
  onInside: (at: Point) => void;
}

const HANDLES: readonly [
  name: string,
  sides: readonly (keyof Sides)[],
  x: number,
  y: number,
  cursor: string,
][] = [
  [t("upper left corner"), ["west", "north"], 0, 0, "nwse-resize"],
  ["top", ["north"], 0.5, 0, "ns-resize"],
  [t("upper right corner"), ["east", "north"], 1, 0, "nesw-resize"],
  [t("right side"), ["east"], 1, 0.5, "ew-resize"],
  [t("lower right corner"), ["east", "south"], 1, 1, "nwse-resize"],
  ["bottom", ["south"], 0.5, 1, "ns-resize"],
  [t("lower left corner"), ["west", "south"], 0, 1, "nesw-resize"],
  [t("left side"), ["west"], 0, 0.5, "ew-resize"],
];

export function ViewportFrame({
  id,
  label,
  geometry,
  camera,
  pinned,
  fitted,
  moving,
  field,
  onChange,
  onInside,
}: Props) {
  const selected = useSelection((s) => s.selected.includes(id));
  const alone = useSelection((s) => s.selected.length === 1) && selected;
  const movingContents = useSelection((s) => s.movingContents) && selected;
  const draft = useGesture((s) => s.draft?.get(id));
  const now = draft ?? geometry;
  const element = useRef<HTMLDivElement>(null);

  // What is selected has the keys, however it came to be selected.
  useEffect(() => {
    if (selected && !document.activeElement?.closest("input, [role=dialog], [role=presentation]"))
      element.current?.focus({ preventScroll: true });
  }, [selected]);

  /** Follow the pointer: `change` gives what becomes of viewports for a distance in paper mm. */
  function follow(
    event: PointerEvent,
    what: string,
    change: (dx: number, dy: number, event: globalThis.PointerEvent) => Changed,
    click?: () => void,
  ) {
    if (event.button !== 0) return;
    event.stopPropagation();
    let last: Changed | null = null;
    drag(event, {
      move: (px, py, e) => {
        last = change(px / camera.scale, -py / camera.scale, e);
        useGesture.setState({ draft: last });
      },
      end: (dragged) => {
        if (last) onChange(last, what);
        else if (!dragged) click?.();
      },
      onEnd: () => useGesture.setState({ draft: null, alignments: [] }),
    });
  }
  const alike = (make: (dx: number, dy: number) => Geometry) => (dx: number, dy: number) =>
    new Map([[id, make(dx, dy)]]);

  function press(event: PointerEvent) {
    if (event.button !== 0) return;
    const chosen = useSelection.getState().selected;
    if (event.shiftKey) {
      event.stopPropagation();
      select(selected ? chosen.filter((other) => other !== id) : [...chosen, id]);
      return;
    }
    // One of several that are chosen is moved with the others; a click that moves nothing chooses it alone.
    const click = () => chosen.length > 1 && select(id);
    if (!selected) select(id);
    element.current?.focus({ preventScroll: true });
    if (pinned) event.stopPropagation();
    else if (movingContents)
      follow(
        event,
        t("move the contents"),
        alike((dx, dy) => shifted(geometry, dx, dy)),
      );
    else {
      const dragged = moving();
      const others = field();
      follow(
        event,
        dragged.length > 1 ? t("move {count} viewports", { count: dragged.length }) : t("move a viewport"),
        (dx, dy, e) => {
          const { by, alignments } = e.altKey
            ? { by: [dx, dy] as const, alignments: [] }
            : snapped(dragged, others, dx, dy, camera.scale);
          useGesture.setState({ alignments });
          return new Map(dragged.map((m) => [m.id, moved(m.geometry, by[0], by[1])]));
        },
        click,
      );
    }
  }

  function inside(event: { clientX: number; clientY: number }): Point {
    const box = element.current?.getBoundingClientRect();
    if (!box) return [geometry.centre_u, geometry.centre_v];
    const [x, y] = [event.clientX - box.left - box.width / 2, box.top + box.height / 2 - event.clientY];
    const [du, dv] = turned(
      [x / camera.scale / geometry.ratio, y / camera.scale / geometry.ratio],
      -geometry.turn,
    );
    return [geometry.centre_u + du, geometry.centre_v + dv];
  }

  const [left, bottom] = toScreen(camera, now.x, now.y);
  const [right, top] = toScreen(camera, now.x + now.width, now.y + now.height);
  const [width, height] = [right - left, bottom - top];
  const outline = outlineOf(now).map(([x, y]): Point => [
    (x - now.x) * camera.scale,
    (now.y + now.height - y) * camera.scale,
  ]);
  const within =
    now.shape === "rectangle" ? undefined : `polygon(${outline.map(([x, y]) => `${x}px ${y}px`).join(",")})`;
  const handle = (
    name: string,
    x: number,
    y: number,
    cursor: string,
    change: (dx: number, dy: number) => Geometry,
    small = false,
  ) => (
    <Box
      key={name}
      data-handle={name}
      title={t("Crop: {name}", { name })}
      onPointerDown={(event) =>
        follow(
          event,
          t("crop a viewport"),
          alike((dx, dy) => fitted(change(dx, dy))),
        )
      }
      style={{ left: x, top: y }}
      sx={{
        position: "absolute",
        width: 17,
        height: 17,
        m: "-8.5px",
        cursor,
        "&::after": {
          content: '""',
          position: "absolute",
          inset: small ? 6 : 5,
          bgcolor: colours.paper,
          border: `1.5px solid ${colours.rust}`,
          borderRadius: "50%",
        },
      }}
    />
  );
  return (
    <Box
      ref={element}
      data-thing={id}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={selected}
      onFocus={() =>
        !useGesture.getState().draft && !selected && !useSelection.getState().selected.length && select(id)
      }
      style={{ left, top, width, height }}
      sx={{
        position: "absolute",
        zIndex: selected ? 2 : 1,
        outline: "none",
        pointerEvents: "none",
        "&:focus-visible polygon": { stroke: colours.rust },
      }}
    >
      <svg width={width} height={height} style={{ position: "absolute", overflow: "visible" }} aria-hidden>
        <polygon
          points={outline.map((p) => p.join(",")).join(" ")}
          fill={movingContents ? `${colours.rust}12` : "none"}
          stroke={selected ? colours.rust : colours.sandShade}
          strokeWidth={selected ? 1.5 : 0.75}
          strokeDasharray={selected ? undefined : "3 3"}
        />
      </svg>
      <Box
        onPointerDown={press}
        onDoubleClick={(event) => (movingContents ? onInside(inside(event)) : select(id, true))}
        style={{ clipPath: within }}
        sx={{
          position: "absolute",
          inset: 0,
          pointerEvents: "auto",
          cursor: pinned ? "default" : movingContents ? "grab" : "move",
        }}
      />
      {pinned && (
        <Box
          sx={{
            position: "absolute",
            left: 3,
            top: 3,
            px: 0.5,
            fontSize: 10.5,
            lineHeight: "14px",
            fontWeight: 600,
            bgcolor: colours.sandLight,
            color: colours.ink,
            border: `1px solid ${colours.sandShade}`,
            borderRadius: "2px",
            opacity: 0.9,
          }}
        >
          {t("pinned")}
        </Box>
      )}
      {alone && !movingContents && !pinned && (
        <Box sx={{ "& > *": { pointerEvents: "auto" } }}>
          {now.shape === "polygon"
            ? outline.flatMap(([x, y], k) => {
                const next = (k + 1) % outline.length;
                const [nx, ny] = outline[next] ?? [x, y];
                return [
                  handle(
                    t("side {k}", { k: k + 1 }),
                    (x + nx) / 2,
                    (y + ny) / 2,
                    "move",
                    (dx, dy) => reshaped(geometry, [k, next], dx, dy),
                    true,
                  ),
                  handle(t("corner {k}", { k: k + 1 }), x, y, "move", (dx, dy) =>
                    reshaped(geometry, [k], dx, dy),
                  ),
                ];
              })
            : HANDLES.filter(([, sides]) => now.shape === "rectangle" || sides.length === 1).map(
                ([name, sides, x, y, cursor]) =>
                  handle(name, x * width, y * height, cursor, (dx, dy) =>
                    cropped(
                      geometry,
                      Object.fromEntries(
                        sides.map((side) => [side, side === "west" || side === "east" ? dx : dy]),
                      ),
                    ),
                  ),
              )}
        </Box>
      )}
    </Box>
  );
}
