/** What is drawn on the board with the pointer: the box that selects, and the outline of a viewport. */
import Box from "@mui/material/Box";
import { toScreen, type Box as PaperBox, type Camera, type Point } from "../../../canvas/geometry";
import { useGesture } from "../../../stores/gesture";
import { colours } from "../../../theme/theme";
import { t } from "../../../words/words";
import { OVERLAY } from "./overlay";

export function Marquee({ camera, box }: { camera: Camera; box: PaperBox }) {
  const [left, top] = toScreen(camera, box.x, box.y + box.height);
  return (
    <Box
      sx={{
        position: "absolute",
        left,
        top,
        width: box.width * camera.scale,
        height: box.height * camera.scale,
        border: `1px solid ${colours.rust}`,
        bgcolor: `${colours.rust}14`,
        pointerEvents: "none",
        zIndex: 4,
      }}
    />
  );
}

/** What there is to do while an outline is drawn. */
export function OutlineHint() {
  const count = useGesture((s) => s.outline?.points.length ?? 0);
  const next =
    count === 0
      ? t("Click where the first corner is to be")
      : count < 3
        ? t("Click the next corner; Backspace takes back the last")
        : t("Click the next corner; Enter or a double click closes it");
  return (
    <Box
      role="status"
      sx={{
        position: "absolute",
        top: 8,
        left: "50%",
        transform: "translateX(-50%)",
        zIndex: 5,
        px: 1.25,
        py: 0.5,
        borderRadius: 1,
        fontSize: 12.5,
        bgcolor: colours.ink,
        color: colours.sandLight,
        whiteSpace: "nowrap",
        pointerEvents: "none",
      }}
    >
      {t("{next}. Escape stops.", { next })}
    </Box>
  );
}

/** The outline that is being drawn, and where its next side would go. */
export function Outlined({ camera, hover }: { camera: Camera; hover: Point | null }) {
  const points = useGesture((s) => s.outline?.points) ?? [];
  const all = (hover ? [...points, hover] : points).map((p) => toScreen(camera, ...p));
  return (
    <svg style={OVERLAY}>
      <polygon
        points={all.map((p) => p.join(",")).join(" ")}
        fill={`${colours.rust}14`}
        stroke={colours.rust}
        strokeWidth={1.5}
        strokeDasharray="5 3"
      />
      {points.map((p, k) => {
        const [cx, cy] = toScreen(camera, ...p);
        return (
          <circle
            key={k}
            cx={cx}
            cy={cy}
            r={3.5}
            fill={colours.paper}
            stroke={colours.rust}
            strokeWidth={1.5}
          />
        );
      })}
    </svg>
  );
}
