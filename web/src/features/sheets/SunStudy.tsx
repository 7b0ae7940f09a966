/** Asks for a day and hours, and sets a view beside itself in the sun of each. */
import Box from "@mui/material/Box";
import { useState } from "react";
import type { Appearance, Viewport } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { useBoard } from "../../stores/board";
import { MONTHS } from "./months";
import { Question } from "./Question";
import type { Edits } from "./sheetCommands";
import { hoursOf, studyOf } from "./sunStudy";

interface Props {
  viewport: Viewport;
  /** What it shows now, of its own or as its view. */
  appearance: Appearance;
  edits: Edits;
  onClose: () => void;
}

export function SunStudy({ viewport, appearance, edits, onClose }: Props) {
  const { light } = appearance;
  const [sun, setSun] = useState({ month: light.month, day: light.day, latitude: light.latitude });
  const [typed, setTyped] = useState("9, 12, 15");
  const hours = hoursOf(typed);
  const onAnswer = () => {
    const paper = useBoard.getState().paper?.width ?? Infinity;
    const [first, ...others] = studyOf(viewport, appearance, sun, hours ?? [], paper);
    if (first) edits.spread(viewport, first, others, `sun study of ${others.length + 1} hours`);
    onClose();
  };
  const figure = (name: "day" | "latitude") => (value: string) => setSun({ ...sun, [name]: Number(value) });
  return (
    <Question
      title="Sun study"
      text="The view beside itself in the sun of each hour, in true solar time: the sun is highest at 12."
      onClose={onClose}
      answer={{
        name: hours ? `Set ${hours.length} beside each other` : "Set",
        ready: hours !== null,
        onAnswer,
      }}
    >
      <Box sx={{ display: "flex", gap: 1 }}>
        <ChoiceField
          label="Month"
          width={120}
          value={String(sun.month)}
          choices={MONTHS}
          onChoose={(month) => setSun({ ...sun, month: Number(month) })}
        />
        <FigureField label="Day" number width={70} value={String(sun.day)} onCommit={figure("day")} />
        <FigureField
          label="Latitude"
          unit="°"
          number
          width={90}
          value={String(sun.latitude)}
          onCommit={figure("latitude")}
        />
      </Box>
      <Box sx={{ mt: 1.25 }}>
        <FigureField label="Hours" width={300} value={typed} onCommit={setTyped} />
        {!hours && (
          <Box role="alert" sx={{ fontSize: 12, color: "error.main", mt: 0.5 }}>
            Hours from 0 to 24 such as 9, 12:30, 15; twelve at most.
          </Box>
        )}
      </Box>
    </Question>
  );
}
