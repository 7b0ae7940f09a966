/** Where a viewport is on paper, how large, of which shape, and from which corner that is measured. */
import Box from "@mui/material/Box";
import { useState } from "react";
import type { Viewport } from "../../api/client";
import { cropped, filling, moved, shaped, type Extents, type Geometry } from "../../canvas/geometry";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { Group, Rows } from "../../components/Ledge";
import { useGesture } from "../../stores/gesture";
import { shownFigure } from "./figures";
import type { Edits } from "./sheetCommands";
import { t } from "../../words/words";

const CORNERS = [
  ["0 1", t("Upper left")],
  ["1 1", t("Upper right")],
  ["0 0", t("Lower left")],
  ["1 0", t("Lower right")],
  ["0.5 0.5", t("Middle")],
] as const;
const SHAPES = choicesOf<NonNullable<Viewport["shape"]>>({
  rectangle: t("Rectangle"),
  circle: t("Circle"),
  polygon: t("Polygon"),
});

/** Place and size, measured from one corner; what is typed moves the frame, and crops as dragging does. */
export function FrameFields({
  viewport,
  now,
  perspective,
  edits,
}: {
  viewport: Viewport;
  now: Geometry;
  perspective: boolean;
  edits: Edits;
}) {
  const [corner, setCorner] = useState("0 0");
  const [fx = 0, fy = 0] = corner.split(" ").map(Number);
  const set = (geometry: Geometry, what: string) => {
    const extents = viewport.extents as unknown as Extents | null;
    void edits.reshape(
      new Map([[viewport.id, perspective && extents ? filling(geometry, extents) : geometry]]),
      what,
    );
  };
  const size = (axis: "width" | "height", value: number) => {
    const by = value - now[axis];
    const share = axis === "width" ? fx : fy;
    const [low, high] = axis === "width" ? (["west", "east"] as const) : (["south", "north"] as const);
    set(
      cropped(now, {
        ...(share > 0 ? { [low]: -by * share } : {}),
        ...(share < 1 ? { [high]: by * (1 - share) } : {}),
      }),
      t("{axis} of a viewport", { axis }),
    );
  };
  return (
    <Group name={t("Frame on paper")}>
      <Rows>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <FigureField
            label={fx === 1 ? t("Right") : fx === 0 ? t("Left") : t("Middle x")}
            unit="mm"
            number
            width={62}
            value={shownFigure(now.x + fx * now.width)}
            onCommit={(v) => set(moved(now, Number(v) - now.x - fx * now.width, 0), t("move a viewport"))}
          />
          <FigureField
            label={fy === 1 ? t("Top") : fy === 0 ? t("Bottom") : t("Middle y")}
            unit="mm"
            number
            width={74}
            value={shownFigure(now.y + fy * now.height)}
            onCommit={(v) => set(moved(now, 0, Number(v) - now.y - fy * now.height), t("move a viewport"))}
          />
          <ChoiceField
            label={t("Measured from")}
            width={101}
            value={corner}
            choices={CORNERS}
            onChoose={setCorner}
          />
        </Box>
        <Box sx={{ display: "flex", gap: 0.5 }}>
          <FigureField
            label={t("Width")}
            unit="mm"
            number
            width={62}
            value={shownFigure(now.width)}
            onCommit={(v) => size("width", Number(v))}
          />
          <FigureField
            label={t("Height")}
            unit="mm"
            number
            width={74}
            value={shownFigure(now.height)}
            onCommit={(v) => size("height", Number(v))}
          />
          <ChoiceField
            label={t("Shape")}
            width={101}
            value={viewport.shape}
            choices={[...SHAPES, ["draw", t("Draw it…")]]}
            onChoose={(shape) => {
              if (shape === "draw") useGesture.setState({ outline: { of: viewport.id, points: [] } });
              else set(shaped(now, shape as Geometry["shape"]), t("make a viewport a {shape}", { shape }));
            }}
          />
        </Box>
      </Rows>
    </Group>
  );
}
