/** Before a review: the word that it asks for, or why nobody comes in. */
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { LookedAt } from "../../api/client";
import { EntryPage } from "../../components/EntryPage";
import { useWord } from "./reviewed";
import { t } from "../../words/words";

export function EnterWord({ secret, review }: { secret: string; review: LookedAt }) {
  const enter = useWord(secret);
  const [word, setWord] = useState("");
  return (
    <EntryPage
      text={
        t("{askedBy} asks for a review of “{name}”, {project}. ", {
          askedBy: review.asked_by,
          name: review.name,
          project: review.project,
        }) + t("Give the word that came with the link.")
      }
      onSubmit={() => enter.mutate(word)}
    >
      {enter.error && <Alert severity="error">{enter.error.message}</Alert>}
      <TextField label={t("Word")} value={word} autoFocus onChange={(event) => setWord(event.target.value)} />
      <Button
        type="submit"
        variant="contained"
        disabled={!word.trim() || enter.isPending}
        sx={{ minHeight: 40 }}
      >
        {t("Look at the sheets")}
      </Button>
    </EntryPage>
  );
}

export const Refused = ({ message }: { message: string }) => <EntryPage text={message} />;
