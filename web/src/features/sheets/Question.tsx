/** A small question in a dialog: what it is about, what answers it, and a way out. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import type { ReactNode } from "react";

interface QuestionProps {
  title: string;
  text: string;
  onClose: () => void;
  /** The button that answers it, and whether it can be pressed yet. */
  answer?: { name: string; ready: boolean; onAnswer: () => void };
  children: ReactNode;
}

export function Question({ title, text, onClose, answer, children }: QuestionProps) {
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth transitionDuration={0}>
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          if (answer?.ready) answer.onAnswer();
        }}
        sx={{ p: 2.5, display: "flex", flexDirection: "column", gap: 1.25 }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: 650 }}>
          {title}
        </Box>
        <Box sx={{ fontSize: 13, color: "text.secondary" }}>{text}</Box>
        {children}
        <Box sx={{ display: "flex", justifyContent: "flex-end", gap: 1 }}>
          <Button onClick={onClose}>Cancel</Button>
          {answer && (
            <Button type="submit" variant="contained" disabled={!answer.ready}>
              {answer.name}
            </Button>
          )}
        </Box>
      </Box>
    </Dialog>
  );
}
