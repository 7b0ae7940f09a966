/** Asks what of a drawing is to be annotated all at once, how, and where that belongs. */
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState, type ReactNode } from "react";
import { ChoiceField } from "../../../components/ChoiceField";
import { notifyError } from "../../../stores/notices";
import { HOMES } from "./pieceChoices";
import { Question } from "../Question";
import { t } from "../../../words/words";

interface Props<Part extends string, How extends string> {
  title: string;
  text: string;
  verb: string;
  parts: readonly (readonly [Part, string])[];
  /** Which of them are ticked at first. */
  ticked: readonly Part[];
  how: { label: string; choices: readonly (readonly [How, string])[]; value: How };
  /** What else is asked, by how it is to be. */
  more?: (how: How) => ReactNode;
  onAnswer: (parts: readonly Part[], how: How, home: "sheet" | "view") => Promise<void>;
  onClose: () => void;
}

export function ForAllOf<Part extends string, How extends string>(props: Props<Part, How>) {
  const { title, text, verb, parts, ticked, how, more, onAnswer, onClose } = props;
  const [chosen, setChosen] = useState(ticked);
  const [value, setValue] = useState(how.value);
  const [home, setHome] = useState<"sheet" | "view">("sheet");
  return (
    <Question
      title={title}
      text={text}
      onClose={onClose}
      answer={{
        name: verb,
        ready: chosen.length > 0,
        onAnswer: () => {
          onClose();
          onAnswer(chosen, value, home).catch(notifyError);
        },
      }}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", maxHeight: 260, overflowY: "auto" }}>
        {parts.map(([part, name]) => (
          <FormControlLabel
            key={part}
            label={name}
            control={
              <Checkbox
                size="small"
                checked={chosen.includes(part)}
                onChange={(_, on) => setChosen(on ? [...chosen, part] : chosen.filter((p) => p !== part))}
              />
            }
          />
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <ChoiceField
          label={how.label}
          width="50%"
          value={value}
          choices={how.choices}
          onChoose={(to) => setValue(to as How)}
        />
        <ChoiceField
          label={t("Belongs to")}
          width="50%"
          value={home}
          choices={HOMES}
          onChoose={(to) => setHome(to as typeof home)}
        />
      </Box>
      {more?.(value)}
    </Question>
  );
}
