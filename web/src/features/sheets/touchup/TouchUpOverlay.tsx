/** While a drawing is touched up: the board takes clicks, and shows what they choose and what was touched. */
import Box from "@mui/material/Box";
import { useEffect, useState, type PointerEvent } from "react";
import type { DisplayList, Viewport } from "../../../api/client";
import {
  geometryOf,
  onPaper,
  outlineOf,
  toPaper,
  toScreen,
  type Camera,
  type Point,
} from "../../../canvas/geometry";
import { pictures } from "../../../canvas/pictures";
import { redrawnIn } from "../../../canvas/redrawn";
import { useTouching } from "../../../stores/touching";
import { colours } from "../../../theme/theme";
import type { TouchUps } from "./useTouchUp";
import { t } from "../../../words/words";

interface Props {
  camera: Camera;
  viewport: Viewport;
  display: DisplayList;
  commands: TouchUps;
}

export function TouchUpOverlay({ camera, viewport, display, commands }: Props) {
  const place = (event: PointerEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return toPaper(camera, event.clientX - box.left, event.clientY - box.top);
  };
  return (
    <Box
      role="group"
      aria-label={t("Choose lines")}
      onPointerMove={(event) => void commands.hover(place(event))}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.preventDefault();
        (document.activeElement as HTMLElement | null)?.blur();
        void commands.click(place(event), event.shiftKey);
      }}
      sx={{ position: "absolute", inset: 0, zIndex: 6, cursor: "crosshair" }}
    >
      <Marked camera={camera} viewport={viewport} display={display} />
    </Box>
  );
}

function Marked({ camera, viewport, display }: Omit<Props, "commands">) {
  const { chosen, hover, begun, shown } = useTouching();
  const touched = useTouched(viewport, display, shown);
  const geometry = geometryOf(viewport);
  const onScreen = (at: Point) => toScreen(camera, ...onPaper(geometry, at));
  const path = (lines: readonly (readonly Point[])[]) =>
    lines
      .map((line) =>
        line
          .map(
            (p, k) =>
              `${k ? "L" : "M"}${onScreen(p)
                .map((x) => x.toFixed(1))
                .join(" ")}`,
          )
          .join(""),
      )
      .join("");
  const clip = outlineOf(geometry)
    .map((p) => toScreen(camera, ...p).join(","))
    .join(" ");
  return (
    <svg style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}>
      <clipPath id="touched-viewport">
        <polygon points={clip} />
      </clipPath>
      <polygon points={clip} fill="none" stroke={colours.rust} strokeWidth={1.5} />
      <g clipPath="url(#touched-viewport)" fill="none">
        {touched.map(({ hidden, lines }, k) => (
          <path
            key={k}
            data-touched={hidden ? "hidden" : "redrawn"}
            d={path(lines)}
            stroke={hidden ? colours.rust : colours.sea}
            strokeWidth={1.25}
            strokeDasharray={hidden ? "2 3" : undefined}
            opacity={0.75}
          />
        ))}
        {hover && <path data-hover="line" d={path([hover.points])} stroke={colours.sea} strokeWidth={2.5} />}
        <path d={path(chosen.flatMap((c) => c.lines))} stroke={colours.rust} strokeWidth={3} opacity={0.85} />
      </g>
      {begun && <Begun at={onScreen(begun.at)} />}
    </svg>
  );
}

const Begun = ({ at: [x, y] }: { at: Point }) => <circle cx={x} cy={y} r={4} fill={colours.rust} />;

/** Where the lines lie that are drawn otherwise. */
function useTouched(viewport: Viewport, display: DisplayList, wanted: boolean) {
  const [touched, setTouched] = useState<{ hidden: boolean; lines: [number, number][][] }[]>([]);
  useEffect(() => {
    const redrawn = wanted ? redrawnIn(display, viewport.id) : [];
    let current = true;
    const found = viewport.linework && redrawn.length ? pictures.piecesOf(viewport.linework, redrawn) : null;
    void Promise.resolve(found ?? []).then((pieces) => {
      if (current) setTouched(pieces.map((lines, k) => ({ hidden: Boolean(redrawn[k]?.hidden), lines })));
    });
    return () => {
      current = false;
    };
  }, [viewport.id, viewport.linework, display, wanted]);
  return touched;
}
