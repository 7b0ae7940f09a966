/** The fine lines that say with what something in the hand agrees. */
import { colours } from "../theme/theme";
import { useDesk } from "./desk";
import { toScreen, type Look } from "./geometry";

/** How far the lines reach beyond what they join; pixels. */
const REACH = 12;

export function Agreements({ look }: { look: Look }) {
  const agreement = useDesk((s) => s.agreement);
  if (!agreement.length) return null;
  return (
    <svg aria-hidden style={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none", zIndex: 4 }}>
      {agreement.map(({ from, to, says }, k) => {
        const [x1, y1] = toScreen(look, ...from);
        const [x2, y2] = toScreen(look, ...to);
        const upright = Math.abs(x1 - x2) < 0.5;
        const [rx, ry] = upright ? [0, REACH] : [REACH, 0];
        return (
          <g key={k}>
            <line x1={x1 - rx} y1={y1 + ry} x2={x2 + rx} y2={y2 - ry} stroke={says ? colours.rust : colours.sea} strokeWidth={1} strokeDasharray={says ? undefined : "4 3"} />
            {says && (
              <text x={upright ? x1 + 6 : x1 + 4} y={upright ? y2 - 2 : y1 - 5} fontSize={11.5} fontWeight={600} fill={colours.rust} stroke={colours.paper} strokeWidth={3} paintOrder="stroke">
                {says}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
