/** The words of a note, in several lines; written when they are left. */
import OutlinedInput from "@mui/material/OutlinedInput";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { t } from "../../../words/words";

const NEW = t("Note");

export function NoteText({ text, onCommit }: { text: string; onCommit: (text: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const field = useRef<HTMLTextAreaElement>(null);
  // A note that was just made waits for its words when it comes to the ledge.
  const begin = useEffectEvent(() => {
    if (text !== NEW) return;
    field.current?.focus();
    field.current?.select();
  });
  useEffect(() => begin(), []);
  return (
    <OutlinedInput
      inputRef={field}
      multiline
      rows={4}
      fullWidth
      value={typed ?? text}
      inputProps={{ "aria-label": t("Words of the note"), spellCheck: true }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (typed !== null && typed.trim() && typed !== text) onCommit(typed);
        setTyped(null);
      }}
      onKeyDown={(event) => {
        if (event.key !== "Escape") return;
        event.stopPropagation();
        (event.target as HTMLElement).blur();
      }}
      sx={{ minWidth: 180, maxWidth: 420, fontSize: 13, lineHeight: 1.35, py: 0.5, px: 1 }}
    />
  );
}
