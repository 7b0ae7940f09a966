/** What the device of a sheet cannot print, on the board. */
import Box from "@mui/material/Box";
import { Margins } from "../../../components/Margins";
import { toScreen, type Camera } from "../../../canvas/geometry";

export function Unprintable({
  camera,
  paper,
  margins,
}: {
  camera: Camera;
  paper: { width: number; height: number };
  margins: readonly number[];
}) {
  const [left, top] = toScreen(camera, 0, paper.height);
  return (
    <Box
      sx={{
        position: "absolute",
        left,
        top,
        width: paper.width * camera.scale,
        height: paper.height * camera.scale,
        pointerEvents: "none",
      }}
    >
      <Margins paper={paper} margins={margins} scale={camera.scale} />
    </Box>
  );
}
