/** Saying something of a sheet: the words, who one is, and a picture. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useRef, useState } from "react";
import { PictureError, rememberName, usePostComment, type Draft } from "./reviewed";
import { t } from "../../words/words";

/** A picture of more is refused; bytes. */
const MAX_PICTURE = 10_000_000;

interface Props {
  secret: string;
  /** For whom the link is; blank for whoever has it, who gives a name. */
  person: string;
  draft: Draft;
  onChange: (draft: Draft) => void;
  onSent: (comment: string) => void;
  onCancel: () => void;
}

export function NewComment({ secret, person, draft, onChange, onSent, onCancel }: Props) {
  const say = usePostComment(secret);
  const file = useRef<HTMLInputElement>(null);
  const [picture, setPicture] = useState<File | null>(null);
  const [problem, setProblem] = useState("");
  const count = draft.marks.length;
  const send = () => {
    if (!draft.text.trim() && !count) return setProblem(t("Write something, or draw on the sheet."));
    if (!person && !draft.author.trim())
      return setProblem(t("Write your name, so that you can be answered."));
    setProblem("");
    rememberName(draft.author);
    say.mutate(
      { draft, picture },
      {
        onSuccess: (said) => onSent(said.id),
        // What was written stays, to be sent again; a comment that was sent is not sent twice.
        onError: (error) => {
          setProblem(error.message);
          if (error instanceof PictureError) onChange({ ...draft, text: "", marks: [] });
        },
      },
    );
  };
  return (
    <Box
      component="form"
      aria-label={t("New comment")}
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
      onKeyDown={(event) => {
        if (event.key === "Escape") onCancel();
        if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) send();
      }}
      sx={{ display: "flex", flexDirection: "column", gap: 1.25 }}
    >
      <TextField
        label={t("Comment")}
        multiline
        minRows={3}
        maxRows={8}
        autoFocus
        value={draft.text}
        onChange={(event) => onChange({ ...draft, text: event.target.value })}
        slotProps={{ htmlInput: { maxLength: 4000 } }}
      />
      {!person && (
        <TextField
          label={t("Your name")}
          value={draft.author}
          autoComplete="name"
          onChange={(event) => onChange({ ...draft, author: event.target.value })}
          slotProps={{ htmlInput: { maxLength: 80 } }}
        />
      )}
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, flexWrap: "wrap", fontSize: 12.5 }}>
        <input
          ref={file}
          type="file"
          accept="image/png,image/jpeg"
          hidden
          aria-label={t("Picture")}
          onChange={(event) => {
            const [chosen] = event.target.files ?? [];
            setProblem(
              chosen && chosen.size > MAX_PICTURE
                ? t("This picture has {e} MB. A picture has at most 10 MB.", {
                    e: (chosen.size / 1e6).toFixed(0),
                  })
                : "",
            );
            setPicture(chosen && chosen.size <= MAX_PICTURE ? chosen : null);
          }}
        />
        <Button variant="outlined" onClick={() => file.current?.click()}>
          {picture ? t("Another picture…") : t("Add a picture…")}
        </Button>
        <Box sx={{ minWidth: 0, overflowWrap: "anywhere" }}>{picture?.name}</Box>
      </Box>
      <Box sx={{ fontSize: 12.5, color: "text.secondary", display: "flex", alignItems: "center", gap: 1 }}>
        {count === 0 ? t("About the whole sheet. Draw on it to show a place.") : marksWord(count)}
        {count > 0 && (
          <Button onClick={() => onChange({ ...draft, marks: draft.marks.slice(0, -1) })}>
            {t("Undo last")}
          </Button>
        )}
      </Box>
      {problem && <Alert severity="error">{problem}</Alert>}
      <Box sx={{ display: "flex", justifyContent: "flex-end", gap: 1 }}>
        <Button onClick={onCancel}>{t("Cancel")}</Button>
        <Button type="submit" variant="contained" disabled={say.isPending}>
          {say.isPending ? t("Sending…") : t("Send")}
        </Button>
      </Box>
    </Box>
  );
}

const marksWord = (count: number) =>
  count === 1 ? t("1 mark on the sheet") : t("{count} marks on the sheet", { count });
