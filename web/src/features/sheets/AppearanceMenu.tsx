/** What a viewport shows of its view: lines, colours or light, and how that light falls. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { Appearance, View, Viewport } from "../../api/client";
import { useModelVersions } from "../../api/buildings";
import { isComing } from "../../canvas/shaded";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { PopUp } from "../../components/PopUp";
import { ToggleButton } from "../../components/ToggleButton";
import { commit } from "../../sync/commands";
import { changing } from "../../sync/rows";
import { BackgroundFields } from "./BackgroundFields";
import { ShadowAreaFields } from "./ShadowAreaFields";
import { appearanceOf, isLinesOnly, scopeOf } from "./appearance";
import { MONTHS } from "./months";
import type { Edits } from "./sheetCommands";
import { t } from "../../words/words";
import { said } from "../../words/said";

const SHOWS = choicesOf<Appearance["show"]>({
  lines: t("Lines only"),
  colours: t("Lines over flat colours"),
  shaded: t("Lines over a shaded picture"),
  picture: t("Shaded picture only"),
});
const BUTTONS: Record<Appearance["show"], string> = {
  lines: t("Lines only"),
  colours: t("Flat colours"),
  shaded: t("Shaded"),
  picture: t("Picture only"),
};
const SCOPES = choicesOf<"viewport" | "view">({
  viewport: t("This viewport alone"),
  view: t("The view, wherever it stands"),
});
const LIGHTS = choicesOf<Appearance["light"]["source"]>({
  convention: t("Fixed, at 45°"),
  sun: t("The sun"),
});
const percent = (share: number) => String(Math.round(share * 100));
/** What was typed as a share, within 0 and 1. */
const share = (typed: string) => Math.min(Math.max(Number(typed) / 100, 0), 1);

interface Props {
  /** One, or several, which show the same from the first change on. */
  viewports: readonly Viewport[];
  viewOf: (id: string) => View | undefined;
  edits: Edits;
  /** Change the colours of materials. */
  onColours: () => void;
}

export function AppearanceMenu({ viewports, viewOf, edits, onColours }: Props) {
  const [chosenFor, setChosenFor] = useState<"view" | "viewport" | null>(null);
  const [viewport] = viewports;
  const project = viewOf(viewport?.view ?? "")?.project ?? "";
  const { data: [version] = [] } = useModelVersions(project);
  if (!viewport) return null;
  const now = appearanceOf(viewport, viewOf(viewport.view));
  const several = viewports.length > 1;
  const alike = viewports.every((v) => appearanceOf(v, viewOf(v.view)).show === now.show);
  const coming = viewports.some(isComing);
  const view = several ? undefined : viewOf(viewport.view);
  const scope = chosenFor ?? scopeOf(viewport, view);
  const give = (appearance: Appearance, to: "view" | "viewport") =>
    view && to === "view"
      ? void commit(view.project, t("appearance of {name}", { name: view.name }), [
          changing("views", view, { appearance }),
          ...(viewport.appearance ? [changing("viewports", viewport, { appearance: null })] : []),
        ])
      : void edits.change(
          [...viewports],
          { appearance },
          several
            ? t("appearance of {count} viewports", { count: viewports.length })
            : t("appearance of a viewport"),
        );
  const change = (to: Partial<Appearance>) => give({ ...now, ...to }, scope);
  const light = (to: Partial<Appearance["light"]>) => change({ light: { ...now.light, ...to } });
  const hasAreas = now.areas.of !== "none" && now.show !== "picture";
  const hasTextures = Boolean(version?.facts.textures?.length);
  const notes = ((viewport.picture?.notes ?? []) as string[]).map(said);
  return (
    <PopUp
      button={!alike ? t("Appearance") : now.show === "lines" && hasAreas ? t("Shadow") : BUTTONS[now.show]}
      name={several ? t("Appearance of these viewports") : t("Appearance of this viewport")}
    >
      <Box sx={{ p: 2, width: 360, display: "grid", gap: 1.25 }}>
        {view && (
          <ChoiceField
            label={t("Chosen for")}
            width={328}
            value={scope}
            choices={SCOPES}
            onChoose={(to) => {
              setChosenFor(to as typeof scope);
              // What is shown is given to whom it is chosen for; lines only need not be.
              if (to !== scope && !isLinesOnly(now)) give(now, to as typeof scope);
            }}
          />
        )}
        <ChoiceField
          label={t("Show")}
          width={328}
          value={now.show}
          choices={SHOWS}
          onChoose={(show) => change({ show: show as Appearance["show"] })}
        />
        {now.show !== "picture" && (
          <ShadowAreaFields now={now.areas} onChange={(areas) => change({ areas })} />
        )}
        {(now.show !== "lines" || hasAreas) && (
          <>
            <Box sx={ROW}>
              <ChoiceField
                label={t("Light")}
                width={140}
                value={now.light.source}
                choices={LIGHTS}
                onChoose={(source) => light({ source: source as Appearance["light"]["source"] })}
              />
              {now.show !== "lines" && (
                <Box sx={{ pt: "15px", display: "flex", gap: 1 }}>
                  <ToggleButton
                    on={now.light.soft}
                    name={t("Soft shadows")}
                    tip={t("Shadows grow softer further from what casts them")}
                    onToggle={() => light({ soft: !now.light.soft })}
                  />
                  {now.show !== "colours" && hasTextures && (
                    <ToggleButton
                      on={now.textures}
                      name={t("Textures")}
                      tip={t("Materials have the textures of the building’s file")}
                      onToggle={() => change({ textures: !now.textures })}
                    />
                  )}
                </Box>
              )}
            </Box>
            {now.light.source === "sun" && (
              <Box sx={ROW}>
                <ChoiceField
                  label={t("Month")}
                  width={108}
                  value={String(now.light.month)}
                  choices={MONTHS}
                  onChoose={(month) => light({ month: Number(month) })}
                />
                <Figure label={t("Day")} value={now.light.day} onCommit={(day) => light({ day })} />
                <Figure label={t("Solar hour")} value={now.light.hour} onCommit={(hour) => light({ hour })} />
                <Figure
                  label={t("Latitude")}
                  value={now.light.latitude}
                  onCommit={(latitude) => light({ latitude })}
                />
              </Box>
            )}
            {now.show !== "lines" && (
              <Box sx={ROW}>
                <Share label={t("Shadows")} value={now.shadows} onCommit={(shadows) => change({ shadows })} />
                <Share label={t("Sky light")} value={now.sky} onCommit={(sky) => change({ sky })} />
                <Share label={t("Fading")} value={now.fading} onCommit={(fading) => change({ fading })} />
              </Box>
            )}
            <Box sx={ROW}>
              {now.show !== "lines" && <BackgroundFields project={project} now={now} onChange={change} />}
              <FigureField
                label={t("Ground level")}
                unit="mm"
                width={120}
                placeholder={t("None")}
                value={now.ground === undefined ? "" : String(now.ground)}
                onCommit={(typed) => {
                  const level = Number(typed.replace(",", "."));
                  if (Number.isFinite(level)) change({ ground: typed === "" ? undefined : level });
                }}
              />
            </Box>
          </>
        )}
        {(now.show !== "lines" || hasAreas) && (
          // There whether anything is said or not: the fields above stay under the pointer.
          <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", minHeight: 30 }}>
            {now.show !== "lines" && (
              <Button variant="outlined" onClick={onColours} sx={{ flexShrink: 0 }}>
                {t("Colours…")}
              </Button>
            )}
            <Box role="status" sx={{ fontSize: 12, color: "text.secondary" }}>
              {coming ? MAKING[now.show === "lines" ? "areas" : "picture"] : notes.join(" ")}
            </Box>
          </Box>
        )}
      </Box>
    </PopUp>
  );
}

const MAKING = { areas: t("The shadow is being traced…"), picture: t("The picture is being made…") } as const;
const ROW = { display: "flex", gap: 1, alignItems: "flex-start" } as const;

function Figure({
  label,
  value,
  onCommit,
}: {
  label: string;
  value: number;
  onCommit: (value: number) => void;
}) {
  return (
    <FigureField
      label={label}
      number
      width={62}
      value={String(value)}
      onCommit={(typed) => onCommit(Number(typed))}
    />
  );
}

function Share({
  label,
  value,
  onCommit,
}: {
  label: string;
  value: number;
  onCommit: (value: number) => void;
}) {
  return (
    <FigureField
      label={label}
      unit="%"
      number
      width={96}
      value={percent(value)}
      onCommit={(typed) => onCommit(share(typed))}
    />
  );
}
