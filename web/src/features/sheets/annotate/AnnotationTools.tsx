/** The tools for annotation, at the lower left of the board: what can be written and measured. */
import Box from "@mui/material/Box";
import { memo } from "react";
import type { DisplayList } from "../../../api/client";
import { ToggleButton } from "../../../components/ToggleButton";
import { annotate, useAnnotating, type Tool } from "../../../stores/annotating";
import { colours } from "../../../theme/theme";
import type { AnnotationEdits } from "./annotationCommands";
import type { SheetSet } from "../useSet";
import { WrongPieces } from "./WrongPieces";
import { t } from "../../../words/words";

const TOOLS: readonly (readonly [Tool, string, string])[] = [
  ["dimension", t("Dimension"), t("True lengths between points of a drawing (D)")],
  ["measure", t("Measure"), t("An angle, radius, diameter, arc, slope or area (M)")],
  ["note", t("Note"), t("Words, with a leader to what they speak of (T)")],
  ["numbered", t("Number"), t("A note of the project’s list, shown as its number (N)")],
  ["level", t("Level"), t("The height of a point in an elevation or a section (L)")],
  ["tag", t("Tag"), t("The number, the size or another value of an element (G)")],
  ["schedule", t("Schedule"), t("A table of what there is, kept by itself (S)")],
  ["table", t("Table"), t("A table whose cells are typed or come from a file (B)")],
  ["shape", t("Shape"), t("Lines, arcs, rectangles, circles, curves (F)")],
  ["cloud", t("Cloud"), t("A ring about what has changed, with the revision (C)")],
  ["symbol", t("Symbol"), t("A symbol of the library (Y)")],
  ["image", t("Picture"), t("A photograph or a drawing as a picture (U)")],
];

interface Props {
  set: SheetSet;
  display: DisplayList;
  edits: AnnotationEdits;
}

export const AnnotationTools = memo(function AnnotationTools({ set, display, edits }: Props) {
  const tool = useAnnotating((s) => s.tool);
  return (
    <Box
      role="group"
      aria-label={t("Annotate")}
      onPointerDown={(event) => event.stopPropagation()}
      sx={{
        position: "absolute",
        left: 10,
        bottom: 10,
        zIndex: 7,
        display: "grid",
        gridTemplateColumns: "1fr 1fr",
        gap: "3px",
        p: "3px",
        borderRadius: "4px",
        bgcolor: colours.sandLight,
        border: `1px solid ${colours.sandDeep}`,
        "& .MuiButton-root": { minHeight: 24, py: 0, fontSize: 12 },
      }}
    >
      {TOOLS.map(([key, name, tip], k) => (
        <ToggleButton
          key={key}
          on={tool === key}
          name={name}
          tip={tip}
          side={k % 2 ? "right" : "left"}
          onToggle={() => annotate(tool === key ? null : key)}
        />
      ))}
      <Box sx={{ gridColumn: "1 / -1", "& .MuiButton-root": { width: "100%" } }}>
        <WrongPieces display={display} pieces={set.pieces} edits={edits} />
      </Box>
    </Box>
  );
});
