/** The fields of plot settings: device and paper, area, size and place, and colours. */
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { DeviceKind, PlotSpec } from "../../api/client";
import { usePenTables } from "../../api/styles";
import { ChoiceField } from "../../components/ChoiceField";
import { ComboField } from "../../components/ComboField";
import { choicesOf } from "../../components/choices";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Rows } from "../../components/Ledge";
import { PopUp } from "../../components/PopUp";
import { ToggleButton } from "../../components/ToggleButton";
import { useBoard } from "../../stores/board";
import { write } from "../../sync/namedRows";
import type { Settings } from "./plotCommands";
import { t } from "../../words/words";

const AREAS = choicesOf<PlotSpec["area"]>({
  sheet: t("Whole sheet"),
  drawings: t("Its drawings"),
  window: t("A window"),
  board: t("As on the board"),
});
const REDUCTIONS = choicesOf<PlotSpec["reduction"]>({
  full: t("Full size, 1:1"),
  paper: t("Reduce with the paper"),
  fit: t("To fit"),
  percent: t("Per cent"),
});
const COLOURS = choicesOf<PlotSpec["colours"]>({
  full: t("Full colour"),
  grey: t("Grey"),
  black: t("All black"),
  chosen: t("Black, but for some"),
});
const RESOLUTIONS = [72, 100, 150, 200, 300, 400, 600] as const;
const AS_THE_SHEET = t("As the sheet");
const PAPERS = [AS_THE_SHEET, "A0", "A1", "A2", "A3", "A4", "ANSI B", "ANSI D", "Arch D"].map((value) => ({
  value,
}));
const NOTHING: never[] = [];
const plain = (value: number) => String(Math.round(value * 100) / 100);

/** Everything that settings say. What is built in is only shown; what is one's own is changed. */
export function PlotFields({
  settings,
  devices,
  project,
}: {
  settings: Settings;
  devices: readonly DeviceKind[];
  project: string;
}) {
  const { spec, own } = settings;
  const seen = useBoard((s) => s.seen);
  const set = (to: Partial<PlotSpec>, what: string) => own && void write("plot_settings", own, to, what);
  const window = spec.window ?? [0, 0, 100, 100];
  const windowed = spec.area === "window" || spec.area === "board";
  const area = (value: string) => {
    const to = { area: value as PlotSpec["area"] };
    if (value === "board" && seen)
      set(
        { ...to, window: seen.map((f) => Math.round(f * 100) / 100) as PlotSpec["window"] },
        t("the plotted area"),
      );
    else
      set(
        value === "window" && !spec.window ? { ...to, window: [...window] as PlotSpec["window"] } : to,
        t("the plotted area"),
      );
  };
  return (
    <Box
      component="fieldset"
      disabled={!own}
      sx={{
        display: "flex",
        gap: 1.5,
        border: 0,
        p: 0,
        m: 0,
        minWidth: 0,
        ...(own ? {} : { pointerEvents: "none", opacity: 0.62 }),
      }}
      title={own ? undefined : t("These are built in. Make a copy to change them.")}
    >
      <Group name={t("Device and paper")}>
        <Rows>
          <ChoiceField
            label={t("Device")}
            width={118}
            value={spec.device}
            choices={devices.map((d) => [d.key, d.name] as const)}
            onChoose={(device) => set({ device: device as PlotSpec["device"] }, t("the device"))}
          />
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ComboField
              label={t("Paper")}
              width={118}
              value={spec.paper || AS_THE_SHEET}
              choices={PAPERS}
              onChoose={(paper) => set({ paper: paper === AS_THE_SHEET ? "" : paper }, t("the paper"))}
            />
          </Box>
        </Rows>
      </Group>
      <Group name={t("Area")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField
              label={t("What of the sheet")}
              width={118}
              value={spec.area}
              choices={AREAS}
              onChoose={area}
            />
            <ChoiceField
              label={t("Orientation")}
              width={96}
              value={spec.orientation}
              choices={[
                ["", t("As sheet")],
                ["landscape", t("Landscape")],
                ["portrait", t("Portrait")],
              ]}
              onChoose={(way) => set({ orientation: way as PlotSpec["orientation"] }, t("the orientation"))}
            />
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            {windowed ? (
              (["x", "y", "width", "height"] as const).map((side, k) => (
                <FigureField
                  key={side}
                  label={side}
                  number
                  width={51.5}
                  value={plain(window[k] ?? 0)}
                  onCommit={(value) =>
                    set(
                      { window: window.map((f, n) => (n === k ? Number(value) : f)) as PlotSpec["window"] },
                      t("the window"),
                    )
                  }
                />
              ))
            ) : (
              <Box
                sx={{
                  width: 218,
                  height: 45,
                  pt: "17px",
                  fontSize: 11.5,
                  lineHeight: 1.3,
                  color: "text.secondary",
                }}
              >
                {spec.area === "drawings" ? t("Viewports with their titles") : t("With its border")}
              </Box>
            )}
          </Box>
        </Rows>
      </Group>
      <Group name={t("Size and place")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField
              label={t("Size")}
              width={spec.reduction === "percent" ? 100 : 148}
              value={spec.reduction}
              choices={REDUCTIONS}
              onChoose={(reduction) => set({ reduction: reduction as PlotSpec["reduction"] }, t("the size"))}
            />
            {spec.reduction === "percent" && (
              <FigureField
                label="%"
                number
                width={44}
                value={plain(spec.percent)}
                onCommit={(value) => set({ percent: Number(value) }, t("the percentage"))}
              />
            )}
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField
              label={t("Place")}
              width={spec.place === "offset" ? 72 : 148}
              value={spec.place}
              choices={[
                ["centred", t("In the middle")],
                ["offset", t("Offset")],
              ]}
              onChoose={(place) => set({ place: place as PlotSpec["place"] }, t("the place"))}
            />
            {spec.place === "offset" &&
              (["x", "y"] as const).map((side, k) => (
                <FigureField
                  key={side}
                  label={side}
                  number
                  width={32}
                  value={plain(spec.offset[k] ?? 0)}
                  onCommit={(value) =>
                    set(
                      {
                        offset: spec.offset.map((f, n) =>
                          n === k ? Number(value) : f,
                        ) as PlotSpec["offset"],
                      },
                      t("the offset"),
                    )
                  }
                />
              ))}
          </Box>
        </Rows>
      </Group>
      <Group name={t("Ink")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <ChoiceField
              label={t("Colours")}
              width={spec.colours === "chosen" ? 94 : 128}
              value={spec.colours}
              choices={COLOURS}
              onChoose={(colours) => set({ colours: colours as PlotSpec["colours"] }, t("the colours"))}
            />
            {spec.colours === "chosen" && (
              <KeptColours
                project={project}
                kept={spec.kept}
                onChange={(kept) => set({ kept: [...kept] }, t("the kept colours"))}
              />
            )}
            <ChoiceField
              label={t("Pixels/inch")}
              width={70}
              value={String(spec.resolution)}
              choices={RESOLUTIONS.map((r) => [String(r), String(r)] as const)}
              onChoose={(r) => set({ resolution: Number(r) as PlotSpec["resolution"] }, t("the resolution"))}
            />
          </Box>
          <Buttons>
            <ToggleButton
              on={spec.widths}
              name={t("Line widths")}
              tip={t("Off, every line is 0.13 mm wide")}
              onToggle={() => set({ widths: !spec.widths }, t("line widths"))}
            />
            <ToggleButton
              on={spec.transparency}
              name={t("See-through")}
              tip={t("Off, every area is solid")}
              onToggle={() => set({ transparency: !spec.transparency }, "transparency")}
            />
          </Buttons>
        </Rows>
      </Group>
    </Box>
  );
}

/** The colours that stay where all else is black: those that the project's pen tables have. */
function KeptColours({
  project,
  kept,
  onChange,
}: {
  project: string;
  kept: readonly string[];
  onChange: (kept: string[]) => void;
}) {
  const { data: tables = NOTHING } = usePenTables(project);
  const found = new Set(kept);
  for (const { spec } of tables) {
    for (const stroke of [...Object.values(spec.roles), ...Object.values(spec.layers)])
      if (stroke.colour) found.add(stroke.colour);
    for (const cut of spec.cuts) for (const colour of [cut.fill, cut.colour]) if (colour) found.add(colour);
  }
  return (
    <PopUp button={`${kept.length}`} name={t("Colours that are kept")}>
      <Box sx={{ p: 1.5, display: "flex", flexDirection: "column" }}>
        <Box sx={{ fontSize: 12, color: "text.secondary", mb: 0.5 }}>
          {t("Colours of the pen tables that stay")}
        </Box>
        {[...found].sort().map((colour) => (
          <FormControlLabel
            key={colour}
            sx={{
              m: 0,
              "& .MuiFormControlLabel-label": {
                fontSize: 12.5,
                display: "flex",
                alignItems: "center",
                gap: 0.75,
              },
            }}
            control={
              <Checkbox
                size="small"
                sx={{ p: 0.35 }}
                checked={kept.includes(colour)}
                onChange={(_, on) => onChange(on ? [...kept, colour] : kept.filter((c) => c !== colour))}
              />
            }
            label={
              <>
                <Box
                  component="span"
                  sx={{
                    width: 14,
                    height: 14,
                    borderRadius: "2px",
                    bgcolor: colour,
                    border: "1px solid #0003",
                  }}
                />
                {colour}
              </>
            }
          />
        ))}
      </Box>
    </PopUp>
  );
}
