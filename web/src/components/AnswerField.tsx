/** Words that answer a comment. */
import TextField from "@mui/material/TextField";
import { t } from "../words/words";

export function AnswerField({ value, onChange }: { value: string; onChange: (text: string) => void }) {
  return (
    <TextField
      label={t("Answer")}
      multiline
      minRows={2}
      maxRows={6}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{ htmlInput: { maxLength: 4000 } }}
    />
  );
}
