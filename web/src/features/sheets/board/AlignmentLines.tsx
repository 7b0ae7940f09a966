/** The fine lines that show with what what is dragged is aligned. */
import { colours } from "../../../theme/theme";
import { toScreen, type Camera } from "../../../canvas/geometry";
import { useGesture } from "../../../stores/gesture";
import { OVERLAY } from "./overlay";

/** How far the lines reach beyond what they join; pixels. */
const REACH = 12;

export function AlignmentLines({ camera }: { camera: Camera }) {
  const alignments = useGesture((s) => s.alignments);
  if (!alignments.length) return null;
  return (
    <svg aria-hidden style={OVERLAY}>
      {alignments.map(({ from, to, label }, k) => {
        const [x1, y1] = toScreen(camera, ...from);
        const [x2, y2] = toScreen(camera, ...to);
        const upright = Math.abs(x1 - x2) < 0.5;
        const [rx, ry] = upright ? [0, REACH] : [REACH, 0];
        return (
          <g key={k}>
            <line
              x1={x1 - rx}
              y1={y1 + ry}
              x2={x2 + rx}
              y2={y2 - ry}
              stroke={label ? colours.rust : colours.sea}
              strokeWidth={1}
              strokeDasharray={label ? undefined : "4 3"}
            />
            {label && (
              <text
                x={upright ? x1 + 6 : x1 + 4}
                y={upright ? y2 - 2 : y1 - 5}
                fontSize={11.5}
                fontWeight={600}
                fill={colours.rust}
                stroke={colours.paper}
                strokeWidth={3}
                paintOrder="stroke"
              >
                {label}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
