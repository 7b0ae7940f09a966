/** Asks on which sides a plan is to be dimensioned outside, and how. */
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState } from "react";
import type { DimensionSpec, Viewport } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { notifyError } from "../../stores/notices";
import type { AnnotationEdits, Side } from "./annotationCommands";
import { Question } from "./Question";
import { HOMES, STYLES } from "./pieceChoices";

const SIDES: readonly (readonly [Side, string])[] = [
  ["top", "Above"],
  ["bottom", "Below"],
  ["left", "On the left"],
  ["right", "On the right"],
];

interface Props {
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function OuterChains({ viewport, edits, onClose }: Props) {
  const [sides, setSides] = useState<readonly Side[]>(["bottom", "left"]);
  const [figures, setFigures] = useState<DimensionSpec["style"]>(
    viewport.scale.includes("=") ? "feet" : "millimetres",
  );
  const [home, setHome] = useState<"sheet" | "view">("sheet");
  return (
    <Question
      title="Dimension the outer walls"
      text="Openings, wall faces, grid and overall, one outside the other. Done again, they are updated."
      onClose={onClose}
      answer={{
        name: "Dimension",
        ready: sides.length > 0,
        onAnswer: () => {
          onClose();
          edits.dimensionOutside(viewport, sides, figures, home).catch(notifyError);
        },
      }}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr" }}>
        {SIDES.map(([side, name]) => (
          <FormControlLabel
            key={side}
            label={name}
            control={
              <Checkbox
                size="small"
                checked={sides.includes(side)}
                onChange={(event) =>
                  setSides(event.target.checked ? [...sides, side] : sides.filter((s) => s !== side))
                }
              />
            }
          />
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <ChoiceField
          label="Figures in"
          width="50%"
          value={figures}
          choices={STYLES}
          onChoose={(to) => setFigures(to as typeof figures)}
        />
        <ChoiceField
          label="Belongs to"
          width="50%"
          value={home}
          choices={HOMES}
          onChoose={(to) => setHome(to as typeof home)}
        />
      </Box>
    </Question>
  );
}
