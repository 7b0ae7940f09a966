/** A comment for those who work in the project: what was said, how it stands, and an answer to it. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import { ApiError, type Comment, type CommentState } from "../api/client";
import { AnswerField } from "./AnswerField";
import { ChoiceField } from "./ChoiceField";
import { answerComment, changeComment } from "./commentCommands";
import { COMMENT_STATES } from "./CommentStateMark";
import { CommentThread } from "./CommentThread";
import { FigureField } from "./FigureField";
import { t } from "../words/words";

const pictureAddress = (picture: string) => `/api/comment-pictures/${picture}/pixels/`;
const STATES = Object.entries(COMMENT_STATES) as [CommentState, string][];
/** How a comment stands once it is answered, by what the button says. */
const ANSWERS = [
  ["", t("Answer")],
  ["done", t("Mark as done")],
  ["declined", t("Decline")],
] as const;

export function CommentPanel({ comment }: { comment: Comment }) {
  return (
    <CommentThread comment={comment} pictureAddress={pictureAddress}>
      <Box sx={{ display: "flex", gap: 0.75, mt: 1.5, alignItems: "flex-end" }}>
        <ChoiceField
          label={t("State")}
          width={98}
          value={comment.state}
          choices={STATES}
          onChoose={(state) => void changeComment(comment, { state: state as CommentState }, "state")}
        />
        <FigureField
          label={t("Assigned to")}
          width={92}
          value={comment.assigned}
          onCommit={(assigned) => void changeComment(comment, { assigned }, t("who looks after it, "))}
        />
        <Due key={`${comment.id} ${comment.due}`} comment={comment} />
      </Box>
      <AnswerForm key={comment.id} comment={comment} />
    </CommentThread>
  );
}

/** A day; written when the field is left, for a date that is typed is none until its end. */
function Due({ comment }: { comment: Comment }) {
  const [typed, setTyped] = useState(comment.due ?? "");
  const commit = () => {
    if (typed !== (comment.due ?? "")) void changeComment(comment, { due: typed || null }, t("due date"));
  };
  return (
    <Box sx={{ width: 118 }}>
      <Box sx={{ fontSize: 11, lineHeight: "15px", color: "text.secondary" }}>{t("Due")}</Box>
      <OutlinedInput
        type="date"
        size="small"
        fullWidth
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => event.key === "Enter" && commit()}
        inputProps={{ "aria-label": t("Due") }}
        sx={{ "& input": { px: 0.75 } }}
      />
    </Box>
  );
}

function AnswerForm({ comment }: { comment: Comment }) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const [sending, setSending] = useState(false);
  const [pictured, setPictured] = useState(false);
  // Only of what was reviewed it is known what it was like.
  const canShow = Boolean(comment.reviewed && comment.sheet && comment.marks.length);
  const send = async (state: CommentState | "") => {
    setSending(true);
    setProblem("");
    try {
      await answerComment(comment, text, state, pictured && canShow);
      setText("");
    } catch (error) {
      // What was written stays, to be sent again.
      setProblem(error instanceof ApiError ? error.message : t("The answer could not be sent. Try again."));
    }
    setSending(false);
  };
  return (
    <Box
      component="form"
      aria-label={t("Answer comment {number}", { number: comment.number })}
      onSubmit={(event) => {
        event.preventDefault();
        void send("");
      }}
      sx={{ mt: 1.5, display: "flex", flexDirection: "column", gap: 1 }}
    >
      <AnswerField value={text} onChange={setText} />
      {canShow && (
        <FormControlLabel
          control={
            <Checkbox
              size="small"
              checked={pictured}
              onChange={(event) => setPictured(event.target.checked)}
            />
          }
          label={t("With pictures of before and now")}
          sx={{ my: -0.75, "& .MuiFormControlLabel-label": { fontSize: 13 } }}
        />
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
        {ANSWERS.map(([state, words]) => (
          <Button
            key={state}
            type={state ? "button" : "submit"}
            variant={state ? "outlined" : "contained"}
            disabled={!text.trim() || sending}
            onClick={state ? () => void send(state) : undefined}
          >
            {words}
          </Button>
        ))}
      </Box>
    </Box>
  );
}
