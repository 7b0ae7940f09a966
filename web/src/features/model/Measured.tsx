/** The measure between two places, drawn over the building. */
import Box from "@mui/material/Box";
import { useEffect, useState } from "react";
import { exactLengthOf, useLengths } from "../../components/lengths";
import { colours } from "../../theme/theme";
import type { Place } from "./measuring";
import type { Stage } from "./stage";
import { t } from "../../words/words";

export function Measured({ stage, ends }: { stage: Stage; ends: readonly Place[] }) {
  const lengths = useLengths();
  const [at, setAt] = useState<ReturnType<Stage["onScreen"]>[]>([]);
  useEffect(() => stage.watch(() => setAt(ends.map((place) => stage.onScreen(place)))), [stage, ends]);
  const [a, b] = ends;
  const [p, q] = at;
  const by = a && b ? a.map((x, k) => Math.abs((b[k] ?? 0) - x)) : null;
  const length = by ? Math.hypot(...by) : 0;
  return (
    <>
      <svg style={{ position: "absolute", inset: 0, width: "100%", height: "100%", pointerEvents: "none" }}>
        {p && q && <line x1={p[0]} y1={p[1]} x2={q[0]} y2={q[1]} stroke={colours.rust} strokeWidth={1.6} />}
        {at.map(([x, y], k) => (
          <circle key={k} cx={x} cy={y} r={4} fill={colours.paper} stroke={colours.rust} strokeWidth={1.8} />
        ))}
      </svg>
      <Box
        role="status"
        aria-label={t("Measured")}
        sx={{
          position: "absolute",
          left: 12,
          bottom: 12,
          pointerEvents: "none",
          px: 1.25,
          py: 0.5,
          bgcolor: colours.sandPale,
          border: `1px solid ${colours.sandShade}`,
          borderRadius: 1,
          fontSize: 13,
          fontVariantNumeric: "tabular-nums",
        }}
      >
        {by ? (
          <>
            <strong>{exactLengthOf(length, lengths)}</strong>
            <Box component="span" sx={{ color: "text.secondary", ml: 1.5 }}>
              {by
                .map((side, k) => `${"xyz"[k]} ${exactLengthOf(side, lengths).replace(/ mm$/, "")}`)
                .join(" · ")}
            </Box>
          </>
        ) : (
          t("Click the other end.")
        )}
      </Box>
    </>
  );
}
