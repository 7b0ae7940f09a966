/** Who else is in the project, by their initials; a click goes to where they are. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Tooltip from "@mui/material/Tooltip";
import { useMemo } from "react";
import { useNavigate } from "react-router-dom";
import type { Person } from "../api/client";
import { useSheets } from "../api/sheets";
import { useViews } from "../api/views";
import { initialsOf, namesOf } from "../stores/present";
import { colours } from "../theme/theme";
import { useOthers } from "./useOthers";
import { t } from "../words/words";

/** More are counted. */
const MAX_SHOWN = 4;
const NOTHING: never[] = [];

const disc = {
  width: 22,
  height: 22,
  borderRadius: "50%",
  fontSize: 10.5,
  fontWeight: 650,
  lineHeight: "22px",
  textAlign: "center",
  flexShrink: 0,
} as const;

/** The others at somewhere, as small discs. */
export function Discs({ names }: { names: readonly string[] }) {
  if (!names.length) return null;
  return (
    <Box component="span" sx={{ display: "inline-flex", gap: 0.25, flexShrink: 0 }}>
      {names.map((name) => (
        <Box
          key={name}
          component="span"
          role="img"
          aria-label={t("{name} is here", { name })}
          title={t("{name} is here", { name })}
          sx={{
            ...disc,
            width: 18,
            height: 18,
            lineHeight: "18px",
            fontSize: 9,
            bgcolor: colours.sea,
            color: "#fff",
          }}
        >
          {initialsOf(name)}
        </Box>
      ))}
    </Box>
  );
}

/** The names of the others who have a sheet or a view open. */
export function useThoseAt(): (subject: string) => readonly string[] {
  const others = useOthers();
  return useMemo(() => {
    const at = new Set(others.map((o) => o.subject));
    const names = new Map([...at].map((s) => [s, namesOf(others.filter((o) => o.subject === s))]));
    return (subject: string) => names.get(subject) ?? NOTHING;
  }, [others]);
}

export function People({ project }: { project: string }) {
  const others = useOthers();
  const { data: sheets = NOTHING } = useSheets(project);
  const { data: views = NOTHING } = useViews(project);
  const navigate = useNavigate();
  const names = namesOf(others);
  if (!names.length) return null;
  const whereIs = ({ station, subject }: Person) => {
    const sheet = sheets.find((s) => s.id === subject);
    const view = views.find((v) => v.id === subject);
    return sheet
      ? t("on sheet {number}", { number: sheet.number })
      : view
        ? t("at the view {name}", { name: view.name })
        : station
          ? t("at {station}", { station })
          : "";
  };
  return (
    <Box component="section" aria-label={t("Who else is here")} sx={{ display: "flex", gap: 0.5 }}>
      {names.slice(0, MAX_SHOWN).map((name) => {
        const pages = others.filter((o) => o.user === name);
        const where = [...new Set(pages.map(whereIs))].filter(Boolean).join(", ");
        const [first] = pages;
        const to = first?.station ? `/projects/${project}/${first.station}` : null;
        const deeper = first && ["sheets", "views"].includes(first.station) && first.subject;
        return (
          <Tooltip key={name} title={`${name}${where && `, ${where}`}`}>
            <ButtonBase
              aria-label={`${name}${where && `, ${where}`}`}
              onClick={() => to && void navigate(deeper ? `${to}/${deeper}` : to)}
              sx={{ ...disc, bgcolor: colours.sand, color: colours.ink }}
            >
              {initialsOf(name)}
            </ButtonBase>
          </Tooltip>
        );
      })}
      {names.length > MAX_SHOWN && (
        <Tooltip title={names.slice(MAX_SHOWN).join(", ")}>
          <Box sx={{ ...disc, border: `1px solid ${colours.sandShade}` }}>+{names.length - MAX_SHOWN}</Box>
        </Tooltip>
      )}
    </Box>
  );
}
