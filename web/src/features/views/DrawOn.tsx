/**
 * A new view drawn on one that there is: a section's line, an elevation's face, a perspective's eye, a
 * detail's outline.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useState } from "react";
import type { View } from "../../api/client";
import type { Point } from "../../canvas/geometry";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { colours } from "../../theme/theme";
import { Drawing, onScreen, type Sight } from "./Drawing";
import { specOf, squared, wanted, type Shape } from "./drawn";
import type { Kind, Spec } from "./kinds";
import { groundPlan } from "./places";
import { t } from "../../words/words";

/** A view that somebody wants to draw; `on` is the view to draw it on, if they said so. */
export interface NewViewRequest {
  kind: Extract<Kind, "section" | "elevation" | "perspective" | "detail">;
  on?: string;
}

interface Props {
  request: NewViewRequest;
  views: View[];
  onCancel: () => void;
  onMake: (spec: Spec, name?: string) => Promise<void>;
}

const HOW_TO: Record<NewViewRequest["kind"], readonly [title: string, how: string]> = {
  section: [
    t("A section"),
    t("Click where its line starts and ends; more clicks make jogs. The arrows point the way it is seen."),
  ],
  elevation: [
    t("An elevation"),
    t("Click two points along the face. The arrows point at it; turn them round if they point away."),
  ],
  perspective: [t("A perspective"), t("Click where the eye is, then what it looks at.")],
  detail: [t("A detail"), t("Outline the part of the view that it shows.")],
};
const SHAPES: readonly (readonly [Shape, string])[] = [
  ["rectangle", t("Rectangle")],
  ["circle", t("Circle")],
  ["polygon", t("Polygon")],
];

export function DrawOn({ request, views, onCancel, onMake }: Props) {
  const { kind } = request;
  const bases = views.filter(
    (v) =>
      v.linework &&
      (kind === "detail" ? !["detail", "perspective"].includes(v.spec.kind) : v.spec.kind === "plan"),
  );
  const first = groundPlan(bases.filter((v) => v.spec.kind === "plan")) ?? bases[0];
  const [on, setOn] = useState(request.on ?? first?.id ?? "");
  const base = bases.find((v) => v.id === on) ?? bases[0];
  const origin = base?.axes?.origin ?? [0, 0, 0];
  const [points, setPoints] = useState<readonly Point[]>([]);
  const [hover, setHover] = useState<Point | null>(null);
  const [shape, setShape] = useState<Shape>("rectangle");
  const [depth, setDepth] = useState<number | null>(null);
  const [eyeHeight, setEyeHeight] = useState(1600);
  const [targetHeight, setTargetHeight] = useState(1600);
  const [angle, setAngle] = useState(60);
  const [, most] = wanted(kind, shape);
  const open = points.length < most;
  const figures = { depth, eyeHeight, targetHeight, floor: 0, angle };
  const spec = base ? specOf(kind, shape, points, base.spec, origin, figures) : null;
  const [title, how] = HOW_TO[kind];

  const add = (at: Point, free: boolean) =>
    setPoints((old) => {
      const begun = old.length < most ? old : [];
      return [...begun, squared(kind, begun, at, free)];
    });
  const make = () => spec && void onMake(spec);

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if ((event.target as HTMLElement).closest("input, [role=listbox], [role=combobox], button")) return;
      if (event.key === "Enter" && spec) void onMake(spec);
      else if (event.key === "Backspace") setPoints((old) => old.slice(0, -1));
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [spec, onMake]);

  if (!base) return null;
  const drawn = open && hover ? [...points, squared(kind, points, hover, false)] : points;
  const height = (label: string, value: number, set: (mm: number) => void) => (
    <FigureField
      number
      label={label}
      unit="mm"
      width={112}
      value={String(value)}
      onCommit={(v) => set(Number(v))}
    />
  );

  return (
    <>
      <Box
        sx={{
          px: 3,
          py: 1.25,
          display: "flex",
          alignItems: "flex-end",
          gap: 1.25,
          bgcolor: colours.sandLight,
          borderBottom: `1px solid ${colours.sandDeep}`,
        }}
      >
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box component="h2" sx={{ m: 0, fontSize: 17, fontWeight: 650 }}>
            {title}
          </Box>
          <Box sx={{ fontSize: 12.5, color: "text.secondary" }}>{how}</Box>
        </Box>
        <ChoiceField
          label={t("Drawn on")}
          width={168}
          value={base.id}
          choices={bases.map((v) => [v.id, v.name] as const)}
          onChoose={(id) => {
            setOn(id);
            setPoints([]);
          }}
        />
        {kind === "detail" && (
          <ChoiceField
            label={t("Outline")}
            width={108}
            value={shape}
            choices={SHAPES}
            onChoose={(value) => {
              setShape(value as Shape);
              setPoints([]);
            }}
          />
        )}
        {kind === "section" && (
          <FigureField
            label={t("Depth")}
            unit={t("mm, or all")}
            width={112}
            value={depth === null ? "" : String(depth)}
            onCommit={(v) => setDepth(Number(v) > 0 ? Number(v) : null)}
          />
        )}
        {kind === "perspective" && (
          <>
            {height(t("Eye above zero"), eyeHeight, setEyeHeight)}
            {height(t("Target above zero"), targetHeight, setTargetHeight)}
            <FigureField
              number
              label={t("Field of view")}
              unit="°"
              width={104}
              value={String(angle)}
              onCommit={(v) => setAngle(Number(v))}
            />
          </>
        )}
        <FigureField
          label={t("Points, mm")}
          width={190}
          value={points.map((p) => `${Math.round(p[0])},${Math.round(p[1])}`).join(" ")}
          onCommit={(text) => {
            const given = text.split(/\s+/).map((pair) => pair.split(",").map(Number));
            if (given.every(([u, v, ...more]) => Number.isFinite(u) && Number.isFinite(v) && !more.length))
              setPoints(given.map(([u = 0, v = 0]) => [u, v]));
          }}
        />
        {(kind === "section" || kind === "elevation") && (
          <Button
            variant="outlined"
            disabled={points.length < 2}
            onClick={() => setPoints([...points].reverse())}
          >
            {t("Turn round")}
          </Button>
        )}
        <Button onClick={onCancel}>{t("Cancel")}</Button>
        <Button variant="contained" disabled={!spec} onClick={make}>
          {t("Make {kind}", { kind })}
        </Button>
      </Box>
      <Box sx={{ flex: 1, minHeight: 0 }}>
        <Drawing
          key={base.id}
          linework={base.linework}
          extents={base.extents}
          label={t("Draw on {name}", { name: base.name })}
          cursor="crosshair"
          onPoint={(at, event) => add(at, event.shiftKey)}
          onHover={setHover}
        >
          {(sight) => (
            <Overlay kind={kind} shape={shape} points={drawn} fixed={points.length} sight={sight} />
          )}
        </Drawing>
      </Box>
    </>
  );
}

interface Drawn {
  kind: NewViewRequest["kind"];
  shape: Shape;
  /** What is clicked so far, and where the pointer is now. */
  points: readonly Point[];
  fixed: number;
  sight: Sight;
}

function Overlay({ kind, shape, points, fixed, sight }: Drawn) {
  const at = points.map(([u, v]) => onScreen(sight, u, v));
  const [a, b] = at;
  const style = { fill: "none", stroke: colours.rust, strokeWidth: 2 };
  return (
    <svg
      width={sight.width}
      height={sight.height}
      style={{ position: "absolute", inset: 0, pointerEvents: "none" }}
      data-points={fixed}
    >
      {kind === "detail" && a && b && shape === "rectangle" && (
        <rect
          x={Math.min(a[0], b[0])}
          y={Math.min(a[1], b[1])}
          width={Math.abs(b[0] - a[0])}
          height={Math.abs(b[1] - a[1])}
          {...style}
        />
      )}
      {kind === "detail" && a && b && shape === "circle" && (
        <circle cx={a[0]} cy={a[1]} r={Math.hypot(b[0] - a[0], b[1] - a[1])} {...style} />
      )}
      {kind === "detail" && shape === "polygon" && (
        <polygon points={at.map((p) => p.join(",")).join(" ")} {...style} />
      )}
      {kind !== "detail" && (
        <polyline
          points={at.map((p) => p.join(",")).join(" ")}
          {...style}
          strokeDasharray={kind === "section" ? "18 4 3 4" : undefined}
        />
      )}
      {(kind === "section" || kind === "elevation") &&
        at.slice(1).map((p, k) => (k % 2 ? null : <Arrow key={k} from={at[k] ?? p} to={p} />))}
      {at.map((p, k) => (
        <circle
          key={k}
          cx={p[0]}
          cy={p[1]}
          r={3.5}
          fill={colours.paper}
          stroke={colours.rust}
          strokeWidth={1.6}
        />
      ))}
    </svg>
  );
}

/** An arrow from the middle of a piece of line to its left: the way that is looked. */
function Arrow({ from, to }: { from: Point; to: Point }) {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy);
  if (length < 12) return null;
  // On the screen y points down, and so left of the way is (dy, -dx).
  const [lx, ly] = [dy / length, -dx / length];
  const [mx, my] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
  const tip = [mx + lx * 26, my + ly * 26];
  const wing = (s: number) =>
    `${mx + lx * 14 + (dx / length) * 6 * s},${my + ly * 14 + (dy / length) * 6 * s}`;
  return (
    <g>
      <line x1={mx} y1={my} x2={mx + lx * 16} y2={my + ly * 16} stroke={colours.rust} strokeWidth={2} />
      <polygon points={`${tip.join(",")} ${wing(1)} ${wing(-1)}`} fill={colours.rust} />
    </g>
  );
}
