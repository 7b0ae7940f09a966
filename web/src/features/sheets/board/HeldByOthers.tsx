/** What others hold in the hand on the sheet just now, outlined with their names. */
import { useMemo } from "react";
import type { PieceBox, Viewport } from "../../../api/client";
import { geometryOf, outlineOf, toScreen, type Camera, type Point } from "../../../canvas/geometry";
import { useOthers } from "../../../components/useOthers";
import { colours } from "../../../theme/theme";
import { t } from "../../../words/words";
import { OVERLAY } from "./overlay";

export function HeldByOthers({ on, pieces, camera }: { on: Viewport[]; pieces: PieceBox[]; camera: Camera }) {
  const others = useOthers();
  const held = useMemo(
    () => new Map(others.flatMap(({ user, holding }) => holding.map((id) => [id, user] as const))),
    [others],
  );
  if (!held.size) return null;
  const outlines: [key: string, name: string, outline: Point[]][] = [
    ...on.flatMap((v): [string, string, Point[]][] => {
      const name = held.get(v.id);
      return name ? [[v.id, name, outlineOf(geometryOf(v))]] : [];
    }),
    ...pieces.flatMap(({ piece, viewport, box: { x, y, width, height } }): [string, string, Point[]][] => {
      const name = held.get(piece);
      const [right, upper] = [x + width, y + height];
      return name
        ? [
            [
              `${piece} ${viewport}`,
              name,
              [
                [x, y],
                [right, y],
                [right, upper],
                [x, upper],
              ],
            ],
          ]
        : [];
    }),
  ];
  return (
    <svg
      role="img"
      aria-label={t("Held by {name}", { name: [...new Set(outlines.map(([, name]) => name))].join(", ") })}
      style={OVERLAY}
    >
      {outlines.map(([key, name, outline]) => {
        const points = outline.map(([x, y]) => toScreen(camera, x, y));
        const [left, top] = [Math.min(...points.map((p) => p[0])), Math.min(...points.map((p) => p[1]))];
        return (
          <g key={key}>
            <polygon
              points={points.map((p) => p.join(",")).join(" ")}
              fill="none"
              stroke={colours.sea}
              strokeWidth={1.5}
            />
            <text
              x={left}
              y={top - 4}
              fontSize={11}
              fontWeight={650}
              fill={colours.sea}
              stroke={colours.paper}
              strokeWidth={3}
              paintOrder="stroke"
            >
              {name}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
