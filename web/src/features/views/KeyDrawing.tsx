/** A small plan or elevation beside a view, on which its cut, its line and its limits are dragged. */
import Box from "@mui/material/Box";
import { useState, type PointerEvent } from "react";
import type { ModelVersion, View } from "../../api/client";
import { drag } from "../../canvas/drag";
import { colours } from "../../theme/theme";
import { Drawing, onScreen, type Sight } from "./Drawing";
import type { ViewEdits } from "../../sync/views";
import type { Spec } from "./kinds";
import { t } from "../../words/words";

const HEIGHT = 136;

/**
 * Something that is dragged one way: where it runs in the key drawing, and the view that it makes of a shift
 * in mm.
 */
interface Handle {
  name: string;
  path: readonly (readonly [number, number])[];
  /** Unit vector of the way it is dragged, in u and v of the key drawing. */
  way: readonly [number, number];
  moved: (by: number) => Spec;
  dashed?: boolean;
}

type Storeys = ModelVersion["facts"]["storeys"];

export function KeyDrawing({
  view,
  views,
  storeys,
  edits,
}: {
  view: View;
  views: View[];
  storeys: Storeys;
  edits: ViewEdits;
}) {
  const [dragged, setDragged] = useState<{ name: string; by: number } | null>(null);
  const key = keyFor(view, views);
  if (!key?.extents) return null;
  const handles = handlesOf(view.spec, key, storeys);
  if (!handles.length) return null;

  function hold(event: PointerEvent, handle: Handle, sight: Sight) {
    event.stopPropagation();
    event.preventDefault();
    const shift = (dx: number, dy: number) =>
      Math.round((dx * handle.way[0] - dy * handle.way[1]) / sight.ratio / 10) * 10;
    drag(event, {
      move: (dx, dy) => setDragged({ name: handle.name, by: shift(dx, dy) }),
      end: (_, e) => {
        const by = shift(e.clientX - event.clientX, e.clientY - event.clientY);
        if (by)
          void edits.change(
            view,
            { spec: handle.moved(by) },
            t("{name} of {name2}", { name: handle.name, name2: view.name }),
          );
      },
      onEnd: () => setDragged(null),
    });
  }

  return (
    <Box
      component="section"
      aria-label={t("Key drawing")}
      sx={{
        flexShrink: 0,
        m: 1,
        bgcolor: colours.sandPale,
        border: `1px solid ${colours.sandShade}`,
        borderRadius: 1,
        overflow: "hidden",
      }}
    >
      <Box sx={{ height: HEIGHT }}>
        <Drawing
          key={key.id}
          linework={key.linework}
          extents={key.extents}
          label={t("Key: {name}", { name: key.name })}
          weight={0.8}
          margin={10}
          fixed
          cursor="default"
        >
          {(sight) => (
            <svg width={sight.width} height={sight.height} style={{ position: "absolute", inset: 0 }}>
              {handles.map((handle) => {
                const by = dragged?.name === handle.name ? dragged.by : 0;
                const at = (p: readonly [number, number]) =>
                  onScreen(sight, p[0] + handle.way[0] * by, p[1] + handle.way[1] * by);
                const points = handle.path.map((p) => at(p).join(",")).join(" ");
                return (
                  <g key={handle.name}>
                    <polyline
                      points={points}
                      fill="none"
                      stroke={colours.rust}
                      strokeWidth={1.6}
                      strokeDasharray={handle.dashed ? "5 3" : undefined}
                    />
                    <polyline
                      points={points}
                      fill="none"
                      data-handle={handle.name}
                      stroke="transparent"
                      strokeWidth={13}
                      style={{ cursor: Math.abs(handle.way[0]) > 0.7 ? "ew-resize" : "ns-resize" }}
                      onPointerDown={(event) => hold(event, handle, sight)}
                    />
                  </g>
                );
              })}
            </svg>
          )}
        </Drawing>
      </Box>
      <Box
        sx={{
          px: 1,
          py: 0.4,
          fontSize: 11.5,
          color: "text.secondary",
          borderTop: `1px solid ${colours.sand}`,
        }}
      >
        {dragged
          ? t("{name}: {which}{by} mm", {
              name: dragged.name,
              which: dragged.by > 0 ? "+" : "−",
              by: Math.abs(dragged.by),
            })
          : t("Drag {or}", { or: handles.map((h) => h.name).join(" or ") })}
      </Box>
    </Box>
  );
}

/** The drawing that shows a view's limits best: an elevation for a plan, a plan for what stands upright. */
function keyFor({ id, spec }: View, views: View[]): View | undefined {
  const ready = views.filter((v) => v.linework && v.extents && v.id !== id);
  if (spec.kind === "plan") return ready.find((v) => v.spec.kind === "elevation" && v.spec.side);
  if (spec.kind === "section" || spec.kind === "elevation") return ready.find((v) => v.spec.kind === "plan");
  return undefined;
}

const ORIGIN: readonly [number, number] = [0, 0];
const BEARINGS: Record<string, number> = { north: 0, east: 90, south: 180, west: 270 };

function handlesOf(spec: Spec, key: View, storeys: Storeys): Handle[] {
  const [u0 = 0, v0 = 0, u1 = 0, v1 = 0] = key.extents ?? [];
  if (spec.kind === "plan") {
    const floor = storeys.find((s) => s.name === spec.storey)?.elevation;
    if (floor === undefined) return [];
    const cut = spec.cut ?? 1200;
    const at = floor + cut;
    return [
      {
        name: t("the cut"),
        path: [
          [u0, at],
          [u1, at],
        ],
        way: [0, 1],
        moved: (by) => ({ ...spec, cut: Math.max(10, cut + by) }),
      },
    ];
  }
  if (spec.kind === "section" && spec.line) {
    const { line } = spec;
    const [[x0, y0] = ORIGIN, [x1, y1] = ORIGIN] = line;
    const [xe, ye] = line.at(-1) ?? ORIGIN;
    const length = Math.hypot(x1 - x0, y1 - y0);
    const way = [-(y1 - y0) / length, (x1 - x0) / length] as const;
    const shifted = (by: number) =>
      line.map(([x, y]): [number, number] => [x + by * way[0], y + by * way[1]]);
    const found: Handle[] = [
      { name: t("the line"), path: line, way, moved: (by) => ({ ...spec, line: shifted(by) }) },
    ];
    if (spec.depth != null) {
      const off = (x: number, y: number) =>
        [x + way[0] * (spec.depth ?? 0), y + way[1] * (spec.depth ?? 0)] as const;
      found.push({
        name: t("the depth"),
        path: [off(x0, y0), off(xe, ye)],
        way,
        dashed: true,
        moved: (by) => ({ ...spec, depth: Math.max(10, (spec.depth ?? 0) + by) }),
      });
    }
    return found;
  }
  if (spec.kind === "elevation") {
    const bearing = ((spec.side ? (BEARINGS[spec.side] ?? 0) : (spec.bearing ?? 0)) * Math.PI) / 180;
    const way = [Math.sin(bearing), Math.cos(bearing)] as const;
    const across = [way[1], -way[0]] as const;
    const reach = Math.hypot(u1 - u0, v1 - v0) / 2;
    const [cu, cv] = [(u0 + u1) / 2, (v0 + v1) / 2];
    const line = (depth: number) => {
      const off = depth - (cu * way[0] + cv * way[1]);
      const [mu, mv] = [cu + way[0] * off, cv + way[1] * off];
      const end = (s: number) => [mu + across[0] * reach * s, mv + across[1] * reach * s] as const;
      return { path: [end(-1), end(1)] };
    };
    const corners = [
      [u0, v0],
      [u1, v0],
      [u0, v1],
      [u1, v1],
    ] as const;
    const nearest = Math.max(...corners.map(([u, v]) => u * way[0] + v * way[1]));
    const near = spec.near ?? nearest;
    const found: Handle[] = [
      {
        name: t("the near limit"),
        ...line(near),
        way,
        moved: (by) => ({ ...spec, near: Math.round(near + by) }),
      },
    ];
    if (spec.depth != null) {
      found.push({
        name: t("the depth"),
        ...line(near - spec.depth),
        way: [-way[0], -way[1]],
        dashed: true,
        moved: (by) => ({ ...spec, depth: Math.max(10, (spec.depth ?? 0) + by) }),
      });
    }
    return found;
  }
  return [];
}
