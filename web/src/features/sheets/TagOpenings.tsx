/** Asks which doors and windows of a drawing are to be tagged, and with what. */
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useState } from "react";
import type { TagSpec, Viewport } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { notifyError } from "../../stores/notices";
import type { AnnotationEdits, Tagged } from "./annotationCommands";
import { Question } from "./Question";
import { HOMES, TAG_WORDS } from "./pieceChoices";

const KINDS: readonly (readonly [Tagged, string])[] = [
  ["doors", "Doors"],
  ["windows", "Windows"],
];

interface Props {
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function TagOpenings({ viewport, edits, onClose }: Props) {
  const [of, setOf] = useState<readonly Tagged[]>(["doors", "windows"]);
  const [shows, setShows] = useState<TagSpec["shows"]>("number");
  const [home, setHome] = useState<"sheet" | "view">("sheet");
  return (
    <Question
      title="Tag doors and windows"
      text="Each beside its own, clear of each other. Done again, new ones are added and the rest stay."
      onClose={onClose}
      answer={{
        name: "Tag",
        ready: of.length > 0,
        onAnswer: () => {
          onClose();
          edits.tagOpenings(viewport, of, shows, home).catch(notifyError);
        },
      }}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr" }}>
        {KINDS.map(([kind, name]) => (
          <FormControlLabel
            key={kind}
            label={name}
            control={
              <Checkbox
                size="small"
                checked={of.includes(kind)}
                onChange={(_, on) => setOf(on ? [...of, kind] : of.filter((k) => k !== kind))}
              />
            }
          />
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1 }}>
        <ChoiceField
          label="Shows"
          width="50%"
          value={shows}
          choices={TAG_WORDS}
          onChoose={(to) => setShows(to as TagSpec["shows"])}
        />
        <ChoiceField
          label="Belongs to"
          width="50%"
          value={home}
          choices={HOMES}
          onChoose={(to) => setHome(to as typeof home)}
        />
      </Box>
    </Question>
  );
}
