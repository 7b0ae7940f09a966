/** How a comment stands: in a word and a shape, not in a colour alone. */
import Box from "@mui/material/Box";
import type { CommentState } from "../api/client";
import { COMMENT_COLOURS } from "./CommentMarks";
import { t } from "../words/words";

export const COMMENT_STATES: Record<CommentState, string> = {
  open: t("Open"),
  answered: t("Answered"),
  done: t("Done"),
  declined: t("Declined"),
};
const SHAPES: Record<CommentState, string> = { open: "○", answered: "◐", done: "●", declined: "–" };

export function CommentStateMark({ state, doneIn = "" }: { state: CommentState; doneIn?: string }) {
  return (
    <Box
      component="span"
      sx={{ color: COMMENT_COLOURS[state], fontSize: 11.5, fontWeight: 650, whiteSpace: "nowrap" }}
    >
      <span aria-hidden style={{ marginRight: 3 }}>
        {SHAPES[state]}
      </span>
      {COMMENT_STATES[state]}
      {doneIn && t(" in {doneIn}", { doneIn })}
    </Box>
  );
}
