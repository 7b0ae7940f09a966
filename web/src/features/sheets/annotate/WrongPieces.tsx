/** Annotation on the sheet that a new version of the model has changed, or of which something is lost. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Annotation, DisplayList, PieceBox } from "../../../api/client";
import { PopUp } from "../../../components/PopUp";
import { fitTo } from "../../../stores/board";
import { select } from "../../../stores/selection";
import type { AnnotationEdits } from "./annotationCommands";
import { KIND_NAMES, STANDINGS } from "./pieces";
import { t } from "../../../words/words";
import { said } from "../../../words/said";

/** What is looked at is shown with so much about it, paper mm. */
const ABOUT = 40;

interface Props {
  display: DisplayList;
  pieces: readonly Annotation[];
  edits: AnnotationEdits;
}

export function WrongPieces({ display, pieces, edits }: Props) {
  // What stands in a view is seen through several viewports, and put right once.
  const boxes = [
    ...new Map(display.pieces.filter((b) => b.standing !== "followed").map((b) => [b.piece, b])).values(),
  ];
  const wrong = boxes.flatMap((box) => {
    const piece = pieces.find((p) => p.id === box.piece);
    return piece ? [{ box, piece }] : [];
  });
  if (!wrong.length) return null;
  const changed = wrong.filter(({ box }) => box.standing === "changed");
  const show = ({ x, y, width, height }: PieceBox["box"]) =>
    fitTo({ x: x - ABOUT, y: y - ABOUT, width: width + 2 * ABOUT, height: height + 2 * ABOUT });
  return (
    <PopUp button={t("{count} to put right", { count: wrong.length })} name={t("Annotation to put right")}>
      <Box sx={{ p: 1.5, width: 430, maxHeight: 420, overflowY: "auto" }}>
        {wrong.map(({ box, piece }) => (
          <Box key={box.piece} sx={{ display: "flex", gap: 1, alignItems: "center", py: 0.5 }}>
            <Box sx={{ flex: 1, minWidth: 0, fontSize: 12.5, lineHeight: 1.35 }}>
              <b>
                {KIND_NAMES[piece.spec.kind]} “{box.text.slice(0, 40)}”, {STANDINGS[box.standing]}
              </b>
              <br />
              {said(box.words)}
            </Box>
            <Button
              onClick={() => {
                select(box.piece);
                show(box.box);
              }}
            >
              {t("Show")}
            </Button>
            {box.standing === "changed" && (
              <Button variant="outlined" onClick={() => void edits.accept(piece, box)}>
                {t("Accept")}
              </Button>
            )}
          </Box>
        ))}
        {changed.length > 1 && (
          <Button
            variant="contained"
            sx={{ mt: 1 }}
            onClick={() => {
              for (const { box, piece } of changed) void edits.accept(piece, box);
            }}
          >
            {t("Accept all {count} that have changed", { count: changed.length })}
          </Button>
        )}
      </Box>
    </PopUp>
  );
}
