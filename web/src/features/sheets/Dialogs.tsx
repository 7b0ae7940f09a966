/**
 * Small questions of the Sheets station: titles of new sheets, sheets to copy to, the view for an outline.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Sheet, View } from "../../api/client";
import { Question } from "./Question";
import { t } from "../../words/words";

export function AddSeveral({ onAdd, onClose }: { onAdd: (titles: string[]) => void; onClose: () => void }) {
  const [text, setText] = useState("");
  const titles = text
    .split("\n")
    .map((line) => line.trim())
    .filter(Boolean);
  const name =
    titles.length === 1
      ? t("Add 1 sheet")
      : t("Add {titles} sheets", { titles: titles.length || "" }).replace("  ", " ");
  return (
    <Question
      title={t("Add several sheets")}
      text={t("One title a line. Numbers go on from the last sheet.")}
      onClose={onClose}
      answer={{ name, ready: titles.length > 0, onAnswer: () => onAdd(titles) }}
    >
      <TextField
        label={t("Titles")}
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
      title={
        count === 1 ? t("The viewport on other sheets") : t("{count} viewports on other sheets", { count })
      }
      text={t("Copies of the same view at the same place and scale.")}
      onClose={onClose}
      answer={{ name: t("Place"), ready: chosen.length > 0, onAnswer: () => onPlace([...chosen]) }}
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
        {!sheets.length && <Box sx={{ fontSize: 13 }}>{t("There is no other sheet yet.")}</Box>}
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
      title={t("Which view goes into the outline?")}
      text={t("It is centred, at the largest scale at which it fits.")}
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
        {!views.length && <Box sx={{ fontSize: 13 }}>{t("No view has been drawn yet.")}</Box>}
      </Box>
    </Question>
  );
}
