/** While something is annotated: the whole board takes clicks, and what they would make is shown. */
import Box from "@mui/material/Box";
import type { PointerEvent } from "react";
import type { Viewport } from "../../../api/client";
import { drafted, measuresFor, offsetFor } from "../../../canvas/dimensions";
import {
  geometryOf,
  inView,
  onPaper,
  toPaper,
  toScreen,
  type Camera,
  type Point,
} from "../../../canvas/geometry";
import type { Snap } from "../../../canvas/snapPoints";
import { useAnnotating } from "../../../stores/annotating";
import { colours } from "../../../theme/theme";
import type { Annotate } from "./useAnnotate";
import { t } from "../../../words/words";

interface Props {
  camera: Camera;
  on: readonly Viewport[];
  commands: Annotate;
}

export function AnnotateOverlay({ camera, on, commands }: Props) {
  const tool = useAnnotating((s) => s.tool);
  if (!tool) return null;
  const place = (event: PointerEvent): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return toPaper(camera, event.clientX - box.left, event.clientY - box.top);
  };
  return (
    <Box
      aria-label={t("Choose points")}
      role="group"
      onPointerMove={(event) => void commands.hover(place(event), event.altKey)}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.preventDefault();
        (document.activeElement as HTMLElement | null)?.blur();
        void commands.click(place(event), { free: event.altKey, more: event.shiftKey });
      }}
      sx={{ position: "absolute", inset: 0, zIndex: 6, cursor: "crosshair" }}
    >
      <Draft camera={camera} on={on} />
    </Box>
  );
}

/** What was clicked, what the pointer snaps to, and what would be made. */
function Draft({ camera, on }: { camera: Camera; on: readonly Viewport[] }) {
  const now = useAnnotating();
  const { tool, points, viewport, hover, pointer, extending, attaching, measures, pointsFor } = now;
  const through = on.find((v) => v.id === viewport);
  const paperOf = (at: Point, v: Viewport | undefined): Point => (v ? onPaper(geometryOf(v), at) : at);
  const screenOf = (at: Point, v: Viewport | undefined) => toScreen(camera, ...paperOf(at, v));
  const under = on.find((v) => v.id === hover?.viewport);
  const clicked = (extending ? [] : points).map((p) => screenOf(p.at, through));
  const drawing =
    tool === "dimension" && through && pointer && points.length > 1 && !extending && !attaching
      ? draftOf(through, points, pointer, measures)
      : null;
  const led =
    (tool === "note" || tool === "numbered") && clicked[0] && pointer
      ? [clicked[0], toScreen(camera, ...pointer)]
      : null;
  const ringed =
    tool === "cloud" && clicked[0] && pointer ? [clicked[0], toScreen(camera, ...pointer)] : null;
  const next = points.length === 1 && tool === "dimension" && hover ? screenOf(hover.snap.at, under) : null;
  const along = tool === "shape" || tool === "measure" || pointsFor;
  const drafted = along && clicked.length > 0 && hover ? [...clicked, screenOf(hover.snap.at, under)] : null;
  return (
    <svg style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}>
      <g stroke={colours.rust} strokeWidth={1.25} fill="none">
        {ringed?.[0] && ringed[1] && (
          <rect
            x={Math.min(ringed[0][0], ringed[1][0])}
            y={Math.min(ringed[0][1], ringed[1][1])}
            width={Math.abs(ringed[0][0] - ringed[1][0])}
            height={Math.abs(ringed[0][1] - ringed[1][1])}
            rx={6}
            strokeDasharray="5 3"
          />
        )}
        {drafted && (
          <Drafted points={drafted} form={tool === "shape" && !pointsFor ? now.shape.form : "line"} />
        )}
        {led && <Segment from={led[0]} to={led[1]} />}
        {next && clicked[0] && <Segment from={clicked[0]} to={next} dashed />}
        {drawing?.lines.map(([a, b], k) => (
          <Segment key={k} from={toScreen(camera, ...a)} to={toScreen(camera, ...b)} dashed={k > 0} />
        ))}
      </g>
      {drawing?.lengths.map(({ at, length }, k) => {
        const [x, y] = toScreen(camera, ...at);
        return (
          <text
            key={k}
            x={x}
            y={y - 5}
            textAnchor="middle"
            fontSize={12}
            fill={colours.rust}
            fontWeight={650}
          >
            {Math.round(length)}
          </text>
        );
      })}
      {clicked.map(([x, y], k) => (
        <circle key={k} cx={x} cy={y} r={3} fill={colours.rust} />
      ))}
      {hover && <SnapMark snap={hover.snap} at={screenOf(hover.snap.at, under)} />}
    </svg>
  );
}

/** What a shape would be: a box, a circle, or the way through its points. */
function Drafted({ points, form }: { points: readonly Point[]; form: string }) {
  const [a, b] = points;
  if (!a || !b) return null;
  if (form === "rectangle")
    return (
      <rect
        x={Math.min(a[0], b[0])}
        y={Math.min(a[1], b[1])}
        width={Math.abs(b[0] - a[0])}
        height={Math.abs(b[1] - a[1])}
      />
    );
  if (form === "circle") return <circle cx={a[0]} cy={a[1]} r={Math.hypot(b[0] - a[0], b[1] - a[1])} />;
  return <polyline points={points.map((p) => p.join(",")).join(" ")} strokeDasharray="5 3" />;
}

function draftOf(v: Viewport, points: readonly Snap[], pointer: Point, wanted: string) {
  const g = geometryOf(v);
  const at = points.map((p) => p.at);
  const measures =
    wanted === "pointer" ? measuresFor(at, inView(g, pointer)) : (wanted as Parameters<typeof drafted>[1]);
  return drafted(g, measures, at, offsetFor(g, measures, at, pointer));
}

function Segment({ from, to, dashed }: { from: Point | undefined; to: Point | undefined; dashed?: boolean }) {
  if (!from || !to) return null;
  return (
    <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} strokeDasharray={dashed ? "4 3" : undefined} />
  );
}

const KINDS: Record<Snap["kind"], string> = {
  corner: "corner",
  centre: "centre",
  crossing: "crossing",
  middle: "middle",
  edge: t("on the edge"),
  annotation: "annotation",
  free: "",
};

/** What the pointer would attach to: filled where it is a corner, and named. */
function SnapMark({ snap, at: [x, y] }: { snap: Snap; at: Point }) {
  if (snap.kind === "free") return null;
  return (
    <g data-snap={snap.kind}>
      <circle cx={x} cy={y} r={5.5} fill="none" stroke={colours.sea} strokeWidth={1.75} />
      <text
        x={x + 10}
        y={y - 8}
        fontSize={11}
        fill={colours.sea}
        stroke={colours.paper}
        strokeWidth={3}
        paintOrder="stroke"
      >
        {KINDS[snap.kind]}
      </text>
    </g>
  );
}
