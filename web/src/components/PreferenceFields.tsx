/** How one likes the interface to be. */
import Box from "@mui/material/Box";
import type { Preferences } from "../api/client";
import { prefer, usePreferences } from "../stores/preferences";
import { AccountSection } from "./AccountSection";
import { ChoiceField } from "./ChoiceField";
import { choicesOf } from "./choices";

const DATES = choicesOf<Preferences["dates"]>({
  iso: "2026-03-18",
  "day first": "18.03.2026",
  "month first": "03/18/2026",
});
const LENGTHS = choicesOf<Preferences["lengths"]>({
  metres: "Metres",
  millimetres: "Millimetres",
  feet: "Feet and inches",
});
const REGISTER = choicesOf<Preferences["register"]>({ pictures: "Pictures", lines: "Lines" });

export function PreferenceFields() {
  const { dates, lengths, register } = usePreferences();
  return (
    <AccountSection
      title="Preferences"
      text="They hold on the screen, in every browser. Sheets are as their styles and title blocks say."
    >
      <Box sx={{ display: "flex", gap: 1 }}>
        <ChoiceField
          label="Dates"
          width={140}
          value={dates}
          choices={DATES}
          onChoose={(to) => prefer({ dates: to as Preferences["dates"] })}
        />
        <ChoiceField
          label="Lengths of the building"
          width={170}
          value={lengths}
          choices={LENGTHS}
          onChoose={(to) => prefer({ lengths: to as Preferences["lengths"] })}
        />
        <ChoiceField
          label="Register"
          width={120}
          value={register}
          choices={REGISTER}
          onChoose={(to) => prefer({ register: to as Preferences["register"] })}
        />
      </Box>
    </AccountSection>
  );
}
