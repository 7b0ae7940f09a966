/** How one likes the interface to be. */
import Box from "@mui/material/Box";
import type { Preferences } from "../api/client";
import { notifyError } from "../stores/notices";
import { prefer, preferLanguage, usePreferences } from "../stores/preferences";
import { LANGUAGES, t } from "../words/words";
import { AccountSection } from "./AccountSection";
import { ChoiceField } from "./ChoiceField";
import { choicesOf } from "./choices";

const DATES = choicesOf<Preferences["dates"]>({
  iso: "2026-03-18",
  "day first": "18.03.2026",
  "month first": "03/18/2026",
});
const LENGTHS = choicesOf<Preferences["lengths"]>({
  metres: t("Metres"),
  millimetres: t("Millimetres"),
  feet: t("Feet and inches"),
});
const SPOKEN = choicesOf<Preferences["language"]>(LANGUAGES);
const REGISTER = choicesOf<Preferences["register"]>({ pictures: t("Pictures"), lines: t("Lines") });

export function PreferenceFields() {
  const { language, titles, dates, lengths, register } = usePreferences();
  return (
    <AccountSection
      title={t("Preferences")}
      text={t("They hold on the screen, in every browser. Sheets are as their styles and title blocks say.")}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
        <ChoiceField
          label={t("Language of the screen")}
          width={150}
          value={language}
          choices={SPOKEN}
          onChoose={(to) => preferLanguage(to as Preferences["language"]).catch(notifyError)}
        />
        <ChoiceField
          label={t("Sheets of new projects")}
          width={180}
          value={titles}
          choices={SPOKEN}
          onChoose={(to) => prefer({ titles: to as Preferences["titles"] })}
        />
        <ChoiceField
          label={t("Dates")}
          width={140}
          value={dates}
          choices={DATES}
          onChoose={(to) => prefer({ dates: to as Preferences["dates"] })}
        />
        <ChoiceField
          label={t("Lengths of the building")}
          width={170}
          value={lengths}
          choices={LENGTHS}
          onChoose={(to) => prefer({ lengths: to as Preferences["lengths"] })}
        />
        <ChoiceField
          label={t("Register")}
          width={120}
          value={register}
          choices={REGISTER}
          onChoose={(to) => prefer({ register: to as Preferences["register"] })}
        />
      </Box>
    </AccountSection>
  );
}
