/** What the device of a sheet cannot print: its margins, hatched along the paper's edges. */
import Box from "@mui/material/Box";
import { colours } from "../theme/theme";
import { toScreen, type Look } from "./geometry";

const HATCH = `repeating-linear-gradient(45deg, ${colours.rust}38 0 1px, transparent 1px 5px)`;

export function Unprintable({ look, paper, margins }: { look: Look; paper: { width: number; height: number }; margins: readonly number[] }) {
  const [west = 0, south = 0, east = 0, north = 0] = margins;
  if (!margins.some((m) => m > 0)) return null;
  const [left, top] = toScreen(look, 0, paper.height);
  const [width, height] = [paper.width * look.scale, paper.height * look.scale];
  const strips = [
    { left: 0, top: 0, width: west, height: paper.height },
    { left: paper.width - east, top: 0, width: east, height: paper.height },
    { left: west, top: 0, width: paper.width - west - east, height: north },
    { left: west, top: paper.height - south, width: paper.width - west - east, height: south },
  ];
  return (
    <Box role="img" aria-label="Unprintable margins" title={`Not printed: ${margins.join(", ")} mm`} sx={{ position: "absolute", left, top, width, height, pointerEvents: "none" }}>
      {strips.map((s, k) => (
        <Box key={k} sx={{ position: "absolute", left: s.left * look.scale, top: s.top * look.scale, width: s.width * look.scale, height: s.height * look.scale, background: HATCH }} />
      ))}
    </Box>
  );
}
