/** The ledge for one view: what it is, where it looks, its line settings, what it shows. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { ModelVersion, View, ViewSpec } from "../../api/client";
import { useSubsets } from "../../api/views";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { HistoryDialog } from "../../components/HistoryDialog";
import { FigureField } from "../../components/FigureField";
import { Group, Ledge } from "../../components/Ledge";
import { StateMark } from "../../components/StateMark";
import type { ViewEdits } from "../../sync/views";
import { CORNER_CHOICES, fitting, withShown, withLineSettings, type Spec } from "./kinds";
import { leftOut, ShownMenu } from "../../components/ShownMenu";
import { LineSettingsField } from "./LineSettingsField";
import { MoreLines } from "./MoreLines";
import { pointFrom, pointText } from "./places";
import { notify } from "../../stores/notices";
import { inSentence, t } from "../../words/words";

interface Props {
  view: View;
  version: ModelVersion | undefined;
  drawing: boolean;
  edits: ViewEdits;
  onOpen: (id?: string) => void;
  onDelete: () => void;
  onDetail: () => void;
}

/** Figures that a kind of view has: key, label, unit. */
const FIGURES: Partial<
  Record<Spec["kind"], readonly (readonly [key: keyof Spec, label: string, unit: string])[]>
> = {
  plan: [
    ["cut", t("Cut above floor"), "mm"],
    ["depth", t("Depth"), "mm"],
  ],
  roof: [["depth", t("Depth"), "mm"]],
  elevation: [
    ["bearing", t("Bearing"), "°"],
    ["near", t("Starts at"), "mm"],
    ["depth", t("Depth"), "mm"],
  ],
  section: [["depth", t("Depth"), "mm"]],
  axonometric: [
    ["bearing", t("Bearing"), "°"],
    ["altitude", t("Altitude"), "°"],
  ],
  perspective: [["angle", t("Field of view"), "°"]],
};
const SIDES = choicesOf<NonNullable<ViewSpec["side"]>>({
  north: t("North"),
  east: t("East"),
  south: t("South"),
  west: t("West"),
});
const PLACES = [
  ["eye", t("Eye")],
  ["target", t("Target")],
] as const;
/** Whether doors, and stairs, have symbols in a plan. */
const PLAN_SYMBOLS = [
  ["true true", t("Open doors, broken stairs")],
  ["true false", t("Open doors")],
  ["false true", t("Broken stairs")],
  ["false false", t("As modelled")],
] as const;
const OFF_ON = [
  ["off", t("No")],
  ["on", t("Yes")],
] as const;

const NONE: never[] = [];

export function ViewLedge({ view, version, drawing, edits, onOpen, onDelete, onDetail }: Props) {
  const [history, setHistory] = useState(false);
  const { spec } = view;
  const { data: subsets = NONE } = useSubsets(view.project);
  const settings = spec.line_settings ?? {};
  const set = (to: Spec, what: string) =>
    void edits.change(view, { spec: to }, t("{what} of {name}", { what, name: view.name }));
  const setLines = (change: Parameters<typeof withLineSettings>[1], what: string) =>
    set(withLineSettings(spec, change), what);
  const figure = (key: keyof Spec) =>
    spec[key] == null ? "" : String(Math.round(Number(spec[key]) * 10) / 10);
  const commit = (key: keyof Spec, label: string, value: string) => {
    const number = Number(value.replace(",", "."));
    if (value && !Number.isFinite(number)) return;
    const to: Spec = { ...spec, [key]: value ? number : null };
    if (key === "cut" && !value) delete to.cut;
    // A bearing takes the place of a side or corner, and the other way round.
    if (key === "bearing" && value) {
      delete to.side;
      delete to.corner;
      if (spec.kind === "axonometric") to.altitude ??= 35.3;
    }
    set(to, inSentence(label));
  };

  return (
    <Ledge label={t("Ledge: view")}>
      <Group name={t("View")}>
        <Box sx={{ width: 190 }}>
          <FigureField
            label={t("Name")}
            width={160}
            value={view.name}
            onCommit={(name) =>
              name && void edits.change(view, { name }, t("rename {name}", { name: view.name }))
            }
          />
          <Box sx={{ display: "flex", alignItems: "center", gap: 0.5, minHeight: 30 }}>
            <StateMark state={view.state} />
            {view.state === "held" && (
              <Box sx={{ fontSize: 11.5 }}>{t("at version {drawnFrom}", { drawnFrom: view.drawn_from })}</Box>
            )}
            {(view.state === "out_of_date" || view.state === "undrawn") && !drawing && (
              <Button onClick={() => void edits.bringUpToDate([view])} sx={{ minHeight: 24, px: 0.75 }}>
                {t("Update")}
              </Button>
            )}
            <Tooltip
              title={
                view.held
                  ? t("Follow the newest model version again")
                  : t("Keep this drawing at its model version when a new one is imported")
              }
            >
              <Button
                onClick={() =>
                  void edits.change(
                    view,
                    { held: !view.held },
                    view.held
                      ? t("release {name}", { name: view.name })
                      : t("hold {name}", { name: view.name }),
                  )
                }
                sx={{ minHeight: 24, px: 0.75, minWidth: 0 }}
              >
                {view.held ? t("Release") : t("Hold")}
              </Button>
            </Tooltip>
          </Box>
        </Box>
      </Group>
      <Group name={t("Direction")}>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 0.75, alignItems: "flex-end", maxWidth: 212 }}>
          {spec.kind === "elevation" && (
            <ChoiceField
              label={t("Side")}
              width={84}
              value={spec.side || "other"}
              choices={spec.side ? SIDES : [...SIDES, ["other", t("Bearing")]]}
              onChoose={(side) =>
                side !== "other" && set({ ...spec, side: side as Spec["side"], bearing: null }, "side")
              }
            />
          )}
          {spec.kind === "axonometric" && (
            <ChoiceField
              label={t("Corner")}
              width={104}
              value={spec.corner || "other"}
              choices={
                spec.corner
                  ? (CORNER_CHOICES as [string, string][])
                  : [...(CORNER_CHOICES as [string, string][]), ["other", t("Bearing")]]
              }
              onChoose={(corner) =>
                corner !== "other" &&
                set({ ...spec, corner: corner as Spec["corner"], bearing: null, altitude: null }, "corner")
              }
            />
          )}
          {(FIGURES[spec.kind] ?? []).map(([key, label, unit]) => (
            <FigureField
              key={key}
              label={label}
              unit={unit}
              width={key === "cut" ? 112 : 80}
              value={figure(key)}
              onCommit={(value) => commit(key, label, value)}
            />
          ))}
          {spec.kind === "perspective" &&
            PLACES.map(([key, label]) => (
              <FigureField
                key={key}
                label={label}
                unit={t("x, y, z in mm")}
                width={176}
                value={pointText(spec[key])}
                onCommit={(typed) => {
                  const point = pointFrom(typed);
                  if (point) set({ ...spec, [key]: point }, inSentence(label));
                  else notify(t("Give three figures, such as 1200, -450, 1600."), true);
                }}
              />
            ))}
          {spec.kind === "plan" && (
            <ChoiceField
              label={t("Doors and stairs")}
              width={198}
              value={`${settings.doors ?? true} ${settings.stairs ?? true}`}
              choices={PLAN_SYMBOLS}
              onChoose={(v) => {
                const [doors, stairs] = v.split(" ").map((on) => on === "true");
                setLines({ doors, stairs }, t("doors and stairs"));
              }}
            />
          )}
          {spec.kind === "section" && (
            <Tooltip title={t("Camera to the other side of the line")}>
              <Button
                variant="outlined"
                onClick={() => set({ ...spec, line: turned(spec.line ?? []) }, "side")}
              >
                {t("Turn round")}
              </Button>
            </Tooltip>
          )}
          {spec.kind === "detail" && (
            <Box sx={{ fontSize: 12.5, color: "text.secondary", lineHeight: "30px" }}>
              {t("A part of another view")}
            </Box>
          )}
        </Box>
      </Group>
      <Group name={t("Lines")}>
        <Box sx={{ display: "flex", flexDirection: "column", gap: 0.5 }}>
          <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
            <LineSettingsField
              project={view.project}
              settings={settings}
              onApply={(to, name) =>
                set({ ...spec, line_settings: fitting(spec.kind, to) }, t("line settings “{name}”", { name }))
              }
            />
            <ChoiceField
              label={t("Hidden lines")}
              width={92}
              value={settings.hidden ? "on" : "off"}
              choices={OFF_ON}
              onChoose={(v) => setLines({ hidden: v === "on" }, t("hidden lines"))}
            />
            <MoreLines kind={spec.kind} settings={settings} onChange={setLines} />
          </Box>
          <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
            <ChoiceField
              label={t("Joints within one material")}
              width={138}
              value={settings.seams ? "on" : "off"}
              choices={OFF_ON}
              onChoose={(v) => setLines({ seams: v === "on" }, t("joints within one material"))}
            />
            <FigureField
              number
              label={t("Hide edges flatter than")}
              unit="°"
              width={130}
              value={String(settings.crease ?? 20)}
              onCommit={(v) => setLines({ crease: Number(v) }, t("hide flat edges"))}
            />
            <FigureField
              label={t("Lighten beyond")}
              unit="m"
              width={94}
              value={settings.far == null ? "" : String(settings.far / 1000)}
              onCommit={(v) =>
                setLines({ far: v ? Number(v.replace(",", ".")) * 1000 : null }, t("lighten far lines"))
              }
            />
          </Box>
        </Box>
      </Group>
      <Group name={t("Shown")}>
        <Box>
          {subsets.length > 0 && (
            <ChoiceField
              label={t("Subset")}
              width={124}
              value={view.subset ?? ""}
              choices={[["", t("All elements")], ...subsets.map((s) => [s.id, s.name] as const)]}
              onChoose={(id) =>
                void edits.change(view, { subset: id || null }, t("subset of {name}", { name: view.name }))
              }
            />
          )}
          <Box sx={{ display: "flex", flexDirection: "column", gap: 0.5, alignItems: "flex-start", pt: 0.5 }}>
            <ShownMenu
              shown={spec.shown ?? {}}
              facts={version?.facts}
              onChange={(key, names) => set(withShown(spec, { [key]: names }), t("what is shown"))}
            />
            {leftOut(spec.shown) > 0 && (
              <Button
                onClick={() => set({ ...spec, shown: { only: spec.shown?.only ?? [] } }, t("what is shown"))}
                sx={{ px: 0.75, minHeight: 26 }}
              >
                {t("Show all again")}
              </Button>
            )}
          </Box>
        </Box>
      </Group>
      <Box
        sx={{
          ml: "auto",
          display: "flex",
          flexDirection: "column",
          gap: 0.25,
          alignItems: "flex-end",
        }}
      >
        <Button
          variant="outlined"
          onClick={async () => {
            const made = await edits.make(spec, t("{name}, copy", { name: view.name }), view.subset);
            if (made) onOpen(made);
          }}
        >
          {t("Duplicate")}
        </Button>
        {spec.kind !== "detail" && spec.kind !== "perspective" && view.linework && (
          <Button onClick={onDetail} sx={{ minHeight: 26 }}>
            {t("Detail of it")}
          </Button>
        )}
        <Box sx={{ display: "flex" }}>
          <Button onClick={() => setHistory(true)} sx={{ minHeight: 26, px: 0.75 }}>
            {t("History…")}
          </Button>
          <Button onClick={onDelete} sx={{ minHeight: 26, px: 0.75 }}>
            {t("Delete")}
          </Button>
        </Box>
      </Box>
      {history && (
        <HistoryDialog
          project={view.project}
          subject={view.id}
          name={view.name}
          onClose={() => setHistory(false)}
        />
      )}
    </Ledge>
  );
}

/** A line the other way round: what lay to its right now lies to its left. */
const turned = (line: readonly [number, number][]) => line.toReversed();
