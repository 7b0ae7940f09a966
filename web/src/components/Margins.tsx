/** What a device cannot print: its margins, hatched along the edges of a paper. */
import Box from "@mui/material/Box";
import { colours } from "../theme/theme";
import { t } from "../words/words";

const HATCH = `repeating-linear-gradient(45deg, ${colours.rust}38 0 1px, transparent 1px 5px)`;
const plain = (margin: number) => String(Math.round(margin * 100) / 100);

/** `scale` is pixels for a millimetre; the margins are left, bottom, right and top. */
export function Margins({
  paper,
  margins,
  scale,
}: {
  paper: { width: number; height: number };
  margins: readonly number[];
  scale: number;
}) {
  const [west = 0, south = 0, east = 0, north = 0] = margins;
  if (!margins.some((m) => m > 0)) return null;
  const strips = [
    { left: 0, top: 0, width: west, height: paper.height },
    { left: paper.width - east, top: 0, width: east, height: paper.height },
    { left: west, top: 0, width: paper.width - west - east, height: north },
    { left: west, top: paper.height - south, width: paper.width - west - east, height: south },
  ];
  return (
    <Box
      role="img"
      aria-label={t("Unprintable margins")}
      title={t("Not printed: {margins} mm", { margins: margins.map(plain).join(", ") })}
      sx={{ position: "absolute", inset: 0, pointerEvents: "none" }}
    >
      {strips.map((s, k) => (
        <Box
          key={k}
          sx={{
            position: "absolute",
            left: s.left * scale,
            top: s.top * scale,
            width: s.width * scale,
            height: s.height * scale,
            background: HATCH,
          }}
        />
      ))}
    </Box>
  );
}
