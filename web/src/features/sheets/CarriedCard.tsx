/** What a card being dragged will cover on the sheet when it is let go. */
import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type Rung, type View } from "../../api/client";
import { rungFor, toPaper, type Camera, type Extents } from "../../canvas/geometry";
import { colours } from "../../theme/theme";
import { useBoard } from "../../stores/board";
import { useGesture } from "../../stores/gesture";

interface Props {
  sheet: string;
  freeArea: readonly number[];
  ladder: readonly Rung[];
}

export function CarriedCard(props: Props) {
  const carried = useGesture((s) => s.cards);
  const camera = useBoard((s) => s.camera);
  const element = useBoard((s) => s.element);
  const [view] = carried?.views ?? [];
  return carried && camera && element && view ? (
    <Carried {...props} {...carried} view={view} camera={camera} element={element} />
  ) : null;
}

interface CarriedProps extends Props {
  view: View;
  x: number;
  y: number;
  camera: Camera;
  element: Element;
}

function Carried({ sheet, freeArea, ladder, view, camera, element, x: atX, y: atY }: CarriedProps) {
  const { data: spaces = [] } = useQuery({
    queryKey: ["spaces", sheet],
    queryFn: () => data(api.GET("/api/sheets/{id}/spaces/", { params: { path: { id: sheet } } })),
    staleTime: 0,
  });
  // Nothing moves the board while a card is dragged.
  const [board] = useState(() => element.getBoundingClientRect());
  const [x, y] = toPaper(camera, atX - board.left, atY - board.top);
  const [left = 0, low = 0, width = 0, height = 0] = freeArea;
  const space = spaces.find((s) => s.x <= x && x <= s.x + s.width && s.y <= y && y <= s.y + s.height) ?? {
    x: left,
    y: low,
    width,
    height,
  };
  const extents = (view.extents ?? [0, 0, 1, 1]) as unknown as Extents;
  const rung = rungFor(extents, space, ladder);
  const pixels = (rung?.ratio ?? 0.01) * camera.scale;
  return (
    <Box
      sx={{
        position: "fixed",
        left: atX,
        top: atY,
        width: (extents[2] - extents[0]) * pixels,
        height: (extents[3] - extents[1]) * pixels,
        transform: "translate(-50%, -50%)",
        border: `1.5px solid ${colours.rust}`,
        bgcolor: "#ffffffb0",
        pointerEvents: "none",
        zIndex: 1500,
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        fontSize: 13,
        fontWeight: 600,
        textAlign: "center",
      }}
    >
      {view.name}
      <br />
      {rung?.scale}
    </Box>
  );
}
