/** Lines that a view has on demand: what is above and below a plan, the terrain, how windows open. */
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { LineSettings } from "../../api/client";
import { FigureField } from "../../components/FigureField";
import { PopUp } from "../../components/PopUp";
import { extraLinesOf, hasContours, type Kind } from "./kinds";
import { inSentence, t } from "../../words/words";

interface Props {
  kind: Kind;
  settings: LineSettings;
  onChange: (change: LineSettings, what: string) => void;
}

export function MoreLines({ kind, settings, onChange }: Props) {
  const switches = extraLinesOf(kind);
  const contours = hasContours(kind);
  if (!switches.length && !contours) return null;
  const on = switches.filter(([key]) => settings[key]).length + (settings.contours ? 1 : 0);
  return (
    <PopUp button={on ? t("{on} more", { on }) : t("More…")} name={t("More lines")}>
      <Box sx={{ p: 2, display: "flex", flexDirection: "column", gap: 0.25 }}>
        {switches.map(([key, name]) => (
          <FormControlLabel
            key={key}
            sx={{ m: 0, "& .MuiFormControlLabel-label": { fontSize: 13 } }}
            label={name}
            control={
              <Checkbox
                size="small"
                sx={{ p: 0.5, mr: 0.5 }}
                checked={settings[key] ?? false}
                onChange={(_, checked) => onChange({ [key]: checked }, inSentence(name))}
              />
            }
          />
        ))}
        {contours && (
          <Box sx={{ pt: 1 }}>
            <FigureField
              label={t("Contours of the terrain every")}
              unit="m"
              width={190}
              placeholder={t("none")}
              value={settings.contours == null ? "" : String(settings.contours / 1000)}
              onCommit={(value) => {
                const interval = Number(value.replace(",", ".")) * 1000;
                if (!value || interval > 0) onChange({ contours: value ? interval : null }, "contours");
              }}
            />
          </Box>
        )}
      </Box>
    </PopUp>
  );
}
