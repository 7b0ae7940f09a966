/** What the device of a sheet cannot print, on the board. */
import Box from "@mui/material/Box";
import { Margins } from "../parts/Margins";
import { toScreen, type Look } from "./geometry";

export function Unprintable({ look, paper, margins }: { look: Look; paper: { width: number; height: number }; margins: readonly number[] }) {
  const [left, top] = toScreen(look, 0, paper.height);
  return (
    <Box sx={{ position: "absolute", left, top, width: paper.width * look.scale, height: paper.height * look.scale, pointerEvents: "none" }}>
      <Margins paper={paper} margins={margins} scale={look.scale} />
    </Box>
  );
}
