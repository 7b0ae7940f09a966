/** Shadow as areas under the lines of a viewport. */
import Box from "@mui/material/Box";
import type { Appearance } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { ColourField } from "../../components/ColourField";
import { FigureField } from "../../components/FigureField";
import { t } from "../../words/words";

const AREAS = choicesOf<Appearance["areas"]["of"]>({
  none: t("None"),
  cast: t("Cast"),
  both: t("Cast and own"),
});
const FILLS = [
  ["fill", t("Filled")],
  ["hatch", t("Hatched")],
] as const;

export function ShadowAreaFields({
  now,
  onChange,
}: {
  now: Appearance["areas"];
  onChange: (areas: Appearance["areas"]) => void;
}) {
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start" }}>
      <ChoiceField
        label={t("Shadow as areas")}
        width={132}
        value={now.of}
        choices={AREAS}
        onChoose={(of) => onChange({ ...now, of: of as Appearance["areas"]["of"] })}
      />
      {now.of !== "none" && (
        <>
          <ChoiceField
            label={t("Drawn")}
            width={84}
            value={now.hatched ? "hatch" : "fill"}
            choices={FILLS}
            onChoose={(drawn) => onChange({ ...now, hatched: drawn === "hatch" })}
          />
          <Box sx={{ pt: "17px" }}>
            <ColourField
              label={t("Colour of the shadow")}
              value={now.colour}
              onChange={(colour) => onChange({ ...now, colour })}
            />
          </Box>
          {!now.hatched && (
            <FigureField
              label={t("Opacity")}
              unit="%"
              number
              width={62}
              value={String(now.opacity)}
              onCommit={(typed) => onChange({ ...now, opacity: Math.min(Math.max(Number(typed), 5), 100) })}
            />
          )}
        </>
      )}
    </Box>
  );
}
