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
import { howManyFit, hoursOf, studyOf } from "./sunStudy";
import { t } from "../../words/words";

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
  const paper = useBoard((s) => s.paper?.width ?? Infinity);
  const study = studyOf(viewport, appearance, sun, hours ?? [], paper);
  const fitting = howManyFit(study);
  const onAnswer = () => {
    const [first, ...others] = study;
    if (first)
      edits.spread(viewport, first, others, t("sun study of {others} hours", { others: others.length + 1 }));
    onClose();
  };
  const figure = (name: "day" | "latitude") => (value: string) => setSun({ ...sun, [name]: Number(value) });
  return (
    <Question
      title={t("Sun study")}
      text={t(
        "The view beside itself in the sun of each hour, in true solar time: the sun is highest at 12.",
      )}
      onClose={onClose}
      answer={{
        name: hours ? t("Set {count} beside each other", { count: hours.length }) : t("Set"),
        ready: hours !== null && fitting === study.length,
        onAnswer,
      }}
    >
      <Box sx={{ display: "flex", gap: 1 }}>
        <ChoiceField
          label={t("Month")}
          width={120}
          value={String(sun.month)}
          choices={MONTHS}
          onChoose={(month) => setSun({ ...sun, month: Number(month) })}
        />
        <FigureField label={t("Day")} number width={70} value={String(sun.day)} onCommit={figure("day")} />
        <FigureField
          label={t("Latitude")}
          unit="°"
          number
          width={90}
          value={String(sun.latitude)}
          onCommit={figure("latitude")}
        />
      </Box>
      <Box sx={{ mt: 1.25 }}>
        <FigureField label={t("Hours")} width={300} value={typed} onCommit={setTyped} />
        {!hours && (
          <Box role="alert" sx={{ fontSize: 12, color: "error.main", mt: 0.5 }}>
            {t("Hours from 0 to 24 such as 9, 12:30, 15; twelve at most.")}
          </Box>
        )}
        {fitting < study.length && (
          <Box role="alert" sx={{ fontSize: 12, color: "error.main", mt: 0.5 }}>
            {t(
              "Only {fitting} of {count} fit on this paper from where the viewport lies. Give fewer " +
                "hours, or move the viewport up, make it smaller or the paper larger.",
              { fitting, count: study.length },
            )}
          </Box>
        )}
      </Box>
    </Question>
  );
}
