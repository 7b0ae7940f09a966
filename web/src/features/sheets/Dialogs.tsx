/**
 * Small questions of the Sheets station: titles of new sheets, sheets to copy to, the view for an outline.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useState, type ReactNode } from "react";
import type { Sheet, View } from "../../api/client";

interface QuestionProps {
  title: string;
  text: string;
  onClose: () => void;
  /** The button that answers it, and whether it can be pressed yet. */
  answer?: { name: string; ready: boolean; onAnswer: () => void };
  children: ReactNode;
}

function Question({ title, text, onClose, answer, children }: QuestionProps) {
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

export function AddSeveral({ onAdd, onClose }: { onAdd: (titles: string[]) => void; onClose: () => void }) {
  const [text, setText] = useState("");
  const titles = text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);
  const name = titles.length === 1 ? "Add 1 sheet" : `Add ${titles.length || ""} sheets`.replace("  ", " ");
  return (
    <Question
      title="Add several sheets"
      text="One title a line. Numbers go on from the last sheet."
      onClose={onClose}
      answer={{ name, ready: titles.length > 0, onAnswer: () => onAdd(titles) }}
    >
      <TextField
        label="Titles"
        multiline
        minRows={6}
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
    </Question>
  );
}

export function ToSheets({
  sheets,
  count,
  onPlace,
  onClose,
}: {
  sheets: Sheet[];
  count: number;
  onPlace: (ids: string[]) => void;
  onClose: () => void;
}) {
  const [chosen, setChosen] = useState<readonly string[]>([]);
  return (
    <Question
      title={count === 1 ? "The viewport on other sheets" : `${count} viewports on other sheets`}
      text="Copies of the same view at the same place and scale."
      onClose={onClose}
      answer={{ name: "Place", ready: chosen.length > 0, onAnswer: () => onPlace([...chosen]) }}
    >
      <Box sx={{ maxHeight: 320, overflowY: "auto" }}>
        {sheets.map((sheet) => (
          <FormControlLabel
            key={sheet.id}
            sx={{ display: "flex", m: 0, "& .MuiFormControlLabel-label": { fontSize: 13 } }}
            control={
              <Checkbox
                size="small"
                sx={{ p: 0.5 }}
                checked={chosen.includes(sheet.id)}
                onChange={(_, on) =>
                  setChosen((old) => (on ? [...old, sheet.id] : old.filter((id) => id !== sheet.id)))
                }
              />
            }
            label={`${sheet.number} ${sheet.title}`}
          />
        ))}
        {!sheets.length && <Box sx={{ fontSize: 13 }}>There is no other sheet yet.</Box>}
      </Box>
    </Question>
  );
}

export function ChooseView({
  views,
  onChoose,
  onClose,
}: {
  views: View[];
  onChoose: (view: View) => void;
  onClose: () => void;
}) {
  return (
    <Question
      title="Which view goes into the outline?"
      text="It is centred, at the largest scale at which it fits."
      onClose={onClose}
    >
      <Box
        sx={{
          maxHeight: 320,
          overflowY: "auto",
          display: "flex",
          flexDirection: "column",
          alignItems: "stretch",
        }}
      >
        {views.map((view) => (
          <Button key={view.id} onClick={() => onChoose(view)} sx={{ justifyContent: "flex-start" }}>
            {view.name}
          </Button>
        ))}
        {!views.length && <Box sx={{ fontSize: 13 }}>No view has been drawn yet.</Box>}
      </Box>
    </Question>
  );
}
