/** A line that is typed, and the button that does something with it. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";

interface Props {
  label: string;
  placeholder: string;
  maxLength: number;
  width: number;
  button: string;
  onDone: (text: string) => void;
}

export function LineForm({ label, placeholder, maxLength, width, button, onDone }: Props) {
  const [text, setText] = useState("");
  const ready = text.trim() !== "";
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (!ready) return;
        onDone(text.trim());
        setText("");
      }}
      sx={{ display: "flex", gap: 0.5 }}
    >
      <OutlinedInput
        size="small"
        value={text}
        placeholder={placeholder}
        inputProps={{ "aria-label": label, maxLength }}
        onChange={(event) => setText(event.target.value)}
        sx={{ width }}
      />
      <Button variant="outlined" type="submit" disabled={!ready}>
        {button}
      </Button>
    </Box>
  );
}
