/** The comments of a sheet: a list, and the one that is open with its answers. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Said } from "../../api/client";
import { AnswerField } from "../../components/AnswerField";
import { CommentStateMark } from "../../components/CommentStateMark";
import { CommentThread } from "../../components/CommentThread";
import { colours } from "../../theme/theme";
import { pictureAddress, rememberedName, rememberName, useAnswer } from "./reviewed";
import { t } from "../../words/words";

interface ListProps {
  said: readonly Said[];
  onChoose: (id: string) => void;
}

export function CommentList({ said, onChoose }: ListProps) {
  if (!said.length)
    return (
      <Box sx={{ fontSize: 13, color: "text.secondary" }}>
        {t("Nothing was said of this sheet yet. Choose Point, Arrow or Cloud and show what you mean.")}
      </Box>
    );
  return (
    <Box component="ul" aria-label={t("Comments")} sx={{ m: 0, p: 0, listStyle: "none" }}>
      {said.map((comment) => (
        <li key={comment.id}>
          <ButtonBase
            onClick={() => onChoose(comment.id)}
            sx={{
              width: "100%",
              py: 1,
              display: "block",
              textAlign: "left",
              borderBottom: `1px solid ${colours.sandDeep}`,
              "&:hover": { bgcolor: colours.sandPale },
            }}
          >
            <Box sx={{ display: "flex", alignItems: "baseline", gap: 1, fontSize: 12.5 }}>
              <b>{comment.number}</b>
              <Box component="span" sx={{ flex: 1, minWidth: 0 }}>
                {comment.author}
              </Box>
              <CommentStateMark state={comment.state} doneIn={comment.done_in} />
            </Box>
            <Box
              sx={{
                fontSize: 13,
                lineHeight: 1.4,
                overflow: "hidden",
                display: "-webkit-box",
                WebkitLineClamp: 2,
                WebkitBoxOrient: "vertical",
                overflowWrap: "anywhere",
              }}
            >
              {comment.text || t("A mark without words.")}
            </Box>
          </ButtonBase>
        </li>
      ))}
    </Box>
  );
}

interface OneProps {
  secret: string;
  person: string;
  comment: Said;
  onBack: () => void;
}

export function OneComment({ secret, person, comment, onBack }: OneProps) {
  const answer = useAnswer(secret);
  const [text, setText] = useState("");
  const [author, setAuthor] = useState(rememberedName());
  const send = () => {
    rememberName(author);
    answer.mutate({ comment: comment.id, text, author }, { onSuccess: () => setText("") });
  };
  return (
    <>
      <Button onClick={onBack} sx={{ ml: -1, mb: 0.5 }}>
        {t("‹ All comments")}
      </Button>
      <CommentThread comment={comment} pictureAddress={(picture) => pictureAddress(secret, picture)}>
        <Box
          component="form"
          aria-label={t("Answer")}
          onSubmit={(event) => {
            event.preventDefault();
            send();
          }}
          sx={{ mt: 1.5, display: "flex", flexDirection: "column", gap: 1 }}
        >
          <AnswerField value={text} onChange={setText} />
          {!person && (
            <TextField
              label={t("Your name")}
              value={author}
              onChange={(event) => setAuthor(event.target.value)}
            />
          )}
          {answer.error && <Alert severity="error">{answer.error.message}</Alert>}
          <Button
            type="submit"
            variant="outlined"
            disabled={!text.trim() || (!person && !author.trim()) || answer.isPending}
            sx={{ alignSelf: "flex-end" }}
          >
            {t("Send answer")}
          </Button>
        </Box>
      </CommentThread>
    </>
  );
}
