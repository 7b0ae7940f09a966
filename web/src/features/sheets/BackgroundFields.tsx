/** What is behind the building in its picture. */
import Box from "@mui/material/Box";
import type { Appearance } from "../../api/client";
import { usePictures } from "../../api/sheets";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { ColourField } from "../../components/ColourField";

import { PictureField } from "./PictureField";
import { t } from "../../words/words";

const NOTHING: never[] = [];
const BACKGROUNDS = choicesOf<Appearance["background"]>({
  none: t("None"),
  plain: t("Plain"),
  sky: t("Sky"),
  picture: t("Picture"),
});

interface Props {
  project: string;
  now: Appearance;
  onChange: (to: Partial<Appearance>) => void;
}

export function BackgroundFields({ project, now, onChange }: Props) {
  const { data: pictures = NOTHING } = usePictures(project);
  return (
    <>
      <ChoiceField
        label={t("Background")}
        width={96}
        value={now.background}
        choices={BACKGROUNDS}
        onChoose={(background) => onChange({ background: background as Appearance["background"] })}
      />
      {(now.background === "plain" || now.background === "sky") && (
        <Box sx={{ pt: "17px" }}>
          <ColourField
            label={t("Colour of the background")}
            value={now.background_colour}
            onChange={(background_colour) => onChange({ background_colour })}
          />
        </Box>
      )}
      {now.background === "picture" && (
        <PictureField
          project={project}
          pictures={pictures}
          label={t("Picture behind")}
          width={112}
          ofPixels
          first={["", t("Choose one")]}
          value={pictures.some((p) => p.id === now.backdrop) ? now.backdrop : ""}
          onChoose={(backdrop) => onChange({ backdrop })}
        />
      )}
    </>
  );
}
