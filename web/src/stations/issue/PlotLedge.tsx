/** The ledge of the Issue station: the plot settings, in the order in which they are decided, and what is made with them. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { PlotSpec, PlotStock, Project, Sheet } from "../../api/client";
import { duplicate, remove, rename, write } from "../../api/named";
import { usePenStock, usePenTables } from "../../api/queries";
import { useDesk } from "../../board/desk";
import { ChoiceField } from "../../parts/ChoiceField";
import { ComboField } from "../../parts/ComboField";
import { FigureField } from "../../parts/FigureField";
import { Buttons, Group, Ledge, Rows } from "../../parts/Ledge";
import { PopUp } from "../../parts/PopUp";
import { ToggleButton } from "../../parts/ToggleButton";
import { knownTables } from "../sheets/pens/penEdits";
import { giveTo, usersOf, type Settings } from "./settingsEdits";

const FORMS = [["pdf", "PDF"], ["dxf", "DXF"], ["svg", "SVG"], ["png", "PNG"]] as const;
export type Form = (typeof FORMS)[number][0];

const AREAS = [["sheet", "Whole sheet"], ["drawings", "Its drawings"], ["window", "A window"], ["board", "As on the board"]] as const;
const REDUCTIONS = [["full", "Full size, 1:1"], ["paper", "Ratio of papers"], ["fit", "To fit"], ["percent", "Per cent"]] as const;
const COLOURS = [["full", "Full colour"], ["grey", "Grey"], ["black", "All black"], ["chosen", "Black, but for some"]] as const;
const RESOLUTIONS = [72, 100, 150, 200, 300, 400, 600] as const;
const PAPERS = ["As the sheet", "A0", "A1", "A2", "A3", "A4", "ANSI B", "ANSI D", "Arch D"].map((value) => ({ value }));
const NOTHING: never[] = [];
const plain = (value: number) => String(Math.round(value * 100) / 100);

interface Props {
  project: Project;
  known: readonly Settings[];
  stock: PlotStock | undefined;
  /** The settings for all sheets; null where each has its own. */
  settings: Settings | null;
  chosen: readonly Sheet[];
  /** Whether nothing can be plotted so. */
  blocked: boolean;
  onSettings: (key: string | null) => void;
  onMake: (form: Form) => void;
  onSend: () => void;
}

export function PlotLedge({ project, known, stock, settings, chosen, blocked, onSettings, onMake, onSend }: Props) {
  const [form, setForm] = useState<Form>("pdf");
  const keys = settings ? [settings.key] : chosen.map((s) => s.plot_settings);
  const prints = keys.length > 0 && keys.every((key) => stock?.devices.find((d) => d.key === known.find((k) => k.key === key)?.spec.device)?.prints);
  return (
    <Ledge label="Ledge: plot settings">
      <Naming project={project} known={known} settings={settings} chosen={chosen} onSettings={onSettings} />
      {settings ? (
        <Fields settings={settings} stock={stock} project={project.id} />
      ) : (
        <Box sx={{ pt: 2.75, maxWidth: 430, fontSize: 12.5, lineHeight: 1.4, color: "text.secondary" }}>
          Each sheet is plotted with its own settings, which stand beside it on the left. Choose settings here to plot all of them alike, or to give them to sheets.
        </Box>
      )}
      <Box sx={{ ml: "auto", pt: "5px" }}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end", ml: "auto" }}>
            <ChoiceField label="File" width={74} value={form} choices={FORMS} onChoose={(value) => setForm(value as Form)} />
            <Tooltip title={form === "pdf" ? "The pages of the very file, before it is taken away" : "Made in the background"}>
              <span>
                <Button variant="contained" disabled={blocked} onClick={() => onMake(form)} sx={{ width: 92 }}>
                  {form === "pdf" ? "Preview" : `Make ${form.toUpperCase()}`}
                </Button>
              </span>
            </Tooltip>
          </Box>
          <Box sx={{ display: "flex", justifyContent: "flex-end", width: "100%", pt: "15px" }}>
            <Tooltip title={prints ? "Print the ticked sheets" : "Choose plot settings with a device that prints"}>
              <span>
                <Button variant="outlined" disabled={blocked || !prints} onClick={onSend}>
                  Send to the device
                </Button>
              </span>
            </Tooltip>
          </Box>
        </Rows>
      </Box>
    </Ledge>
  );
}

/** Which settings, and what is done with them as a whole. */
function Naming({ project, known, settings, chosen, onSettings }: Pick<Props, "project" | "known" | "settings" | "chosen" | "onSettings">) {
  const own = settings?.own;
  const users = settings ? usersOf(project, settings.key) : [];
  const slim = { minWidth: 0, px: 0.75 };
  return (
    <Group name="Plot settings">
      <Rows>
        <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
          <ChoiceField label="For all of these sheets" width={own ? 162 : 190} value={settings?.key ?? ""} choices={[["", "Each sheet’s own"], ...known.map((k) => [k.key, k.name] as const)]} onChoose={(key) => onSettings(key || null)} />
          {own && <FigureField label="Name" width={150} value={own.name} onCommit={(name) => name && void rename("plot_settings", own, name)} />}
        </Box>
        <Buttons>
          {settings && (
            <>
              <Button variant={own ? "outlined" : "contained"} sx={slim} onClick={() => onSettings(duplicate("plot_settings", project.id, settings))}>
                {own ? "Duplicate" : "Make our own"}
              </Button>
              <Tooltip title="The ticked sheets are plotted so from now on">
                <span>
                  <Button variant="outlined" sx={slim} disabled={!chosen.length || chosen.every((s) => s.plot_settings === settings.key)} onClick={() => void giveTo(project, settings, chosen)}>
                    Give to {chosen.length === 1 ? chosen[0]?.number : chosen.length}
                  </Button>
                </span>
              </Tooltip>
              {own && (
                <Tooltip title={users.length ? `Of ${users.map((s) => s.number).join(", ")}: give them others first` : "No sheet is plotted with them"}>
                  <span>
                    <Button
                      sx={slim}
                      disabled={users.length > 0}
                      onClick={() => {
                        onSettings(null);
                        void remove("plot_settings", own);
                      }}
                    >
                      Delete
                    </Button>
                  </span>
                </Tooltip>
              )}
            </>
          )}
        </Buttons>
      </Rows>
    </Group>
  );
}

/** Everything that settings say. What ships is looked at; what is one's own is changed. */
function Fields({ settings, stock, project }: { settings: Settings; stock: PlotStock | undefined; project: string }) {
  const { spec, own } = settings;
  const seen = useDesk((s) => s.seen);
  const set = (to: Partial<PlotSpec>, what: string) => own && void write("plot_settings", own, to, what);
  const window = spec.window ?? [0, 0, 100, 100];
  const windowed = spec.area === "window" || spec.area === "board";
  const area = (value: string) => {
    const to = { area: value as PlotSpec["area"] };
    if (value === "board" && seen) set({ ...to, window: seen.map((f) => Math.round(f * 100) / 100) }, "the plotted area");
    else set(value === "window" && !spec.window ? { ...to, window: [...window] } : to, "the plotted area");
  };
  return (
    <Box component="fieldset" disabled={!own} sx={{ display: "flex", gap: 1.5, border: 0, p: 0, m: 0, minWidth: 0, ...(own ? {} : { pointerEvents: "none", opacity: 0.62 }) }} title={own ? undefined : "These ship as they are. Make them your own to change them."}>
      <Group name="Device and paper">
        <Rows>
          <ChoiceField label="Device" width={118} value={spec.device} choices={(stock?.devices ?? []).map((d) => [d.key, d.name] as const)} onChoose={(device) => set({ device: device as PlotSpec["device"] }, "the device")} />
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ComboField label="Paper" width={118} value={spec.paper || "As the sheet"} choices={PAPERS} onChoose={(paper) => set({ paper: paper === "As the sheet" ? "" : paper }, "the paper")} />
          </Box>
        </Rows>
      </Group>
      <Group name="Area">
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField label="What of the sheet" width={118} value={spec.area} choices={AREAS} onChoose={area} />
            <ChoiceField label="Lies" width={96} value={spec.orientation} choices={[["", "As sheet"], ["landscape", "Landscape"], ["portrait", "Portrait"]]} onChoose={(way) => set({ orientation: way as PlotSpec["orientation"] }, "the orientation")} />
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            {windowed
              ? (["x", "y", "width", "height"] as const).map((side, k) => (
                  <FigureField key={side} label={side} number width={51.5} value={plain(window[k] ?? 0)} onCommit={(value) => set({ window: window.map((f, n) => (n === k ? Number(value) : f)) }, "the window")} />
                ))
              : (
                <Box sx={{ width: 218, height: 45, pt: "17px", fontSize: 11.5, lineHeight: 1.3, color: "text.secondary" }}>{spec.area === "drawings" ? "Viewports with their titles" : "With its border"}</Box>
              )}
          </Box>
        </Rows>
      </Group>
      <Group name="Size and place">
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField label="Size" width={spec.reduction === "percent" ? 100 : 148} value={spec.reduction} choices={REDUCTIONS} onChoose={(reduction) => set({ reduction: reduction as PlotSpec["reduction"] }, "the size")} />
            {spec.reduction === "percent" && <FigureField label="%" number width={44} value={plain(spec.percent)} onCommit={(value) => set({ percent: Number(value) }, "the percentage")} />}
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField label="Place" width={spec.place === "offset" ? 72 : 148} value={spec.place} choices={[["centred", "In the middle"], ["offset", "Offset"]]} onChoose={(place) => set({ place: place as PlotSpec["place"] }, "the place")} />
            {spec.place === "offset" &&
              (["x", "y"] as const).map((side, k) => (
                <FigureField key={side} label={side} number width={32} value={plain(spec.offset[k] ?? 0)} onCommit={(value) => set({ offset: spec.offset.map((f, n) => (n === k ? Number(value) : f)) }, "the offset")} />
              ))}
          </Box>
        </Rows>
      </Group>
      <Group name="Ink">
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <ChoiceField label="Colours" width={spec.colours === "chosen" ? 94 : 128} value={spec.colours} choices={COLOURS} onChoose={(colours) => set({ colours: colours as PlotSpec["colours"] }, "the colours")} />
            {spec.colours === "chosen" && <Kept project={project} kept={spec.kept} onChange={(kept) => set({ kept: [...kept] }, "the kept colours")} />}
            <ChoiceField label="Pixels/inch" width={70} value={String(spec.resolution)} choices={RESOLUTIONS.map((r) => [String(r), String(r)] as const)} onChoose={(r) => set({ resolution: Number(r) as PlotSpec["resolution"] }, "the resolution")} />
          </Box>
          <Buttons>
            <ToggleButton on={spec.widths} name="Line widths" tip="Off, every line is 0.13 mm wide" onToggle={() => set({ widths: !spec.widths }, "line widths")} />
            <ToggleButton on={spec.transparency} name="See-through" tip="Off, every area is solid" onToggle={() => set({ transparency: !spec.transparency }, "transparency")} />
          </Buttons>
        </Rows>
      </Group>
    </Box>
  );
}

/** The colours that stay where all else is black: those that the project's pen tables have. */
function Kept({ project, kept, onChange }: { project: string; kept: readonly string[]; onChange: (kept: string[]) => void }) {
  const { data: stock } = usePenStock();
  const { data: own = NOTHING } = usePenTables(project);
  const found = new Set(kept);
  for (const { spec } of knownTables(stock, own)) {
    for (const stroke of [...Object.values(spec.roles), ...Object.values(spec.layers)]) if (stroke.colour) found.add(stroke.colour);
    for (const cut of spec.cuts) for (const colour of [cut.fill, cut.colour]) if (colour) found.add(colour);
  }
  return (
    <PopUp button={`${kept.length}`} name="Colours that are kept">
      <Box sx={{ p: 1.5, display: "flex", flexDirection: "column" }}>
        <Box sx={{ fontSize: 12, color: "text.secondary", mb: 0.5 }}>Colours of the pen tables that stay</Box>
        {[...found].sort().map((colour) => (
          <FormControlLabel
            key={colour}
            sx={{ m: 0, "& .MuiFormControlLabel-label": { fontSize: 12.5, display: "flex", alignItems: "center", gap: 0.75 } }}
            control={<Checkbox size="small" sx={{ p: 0.35 }} checked={kept.includes(colour)} onChange={(_, on) => onChange(on ? [...kept, colour] : kept.filter((c) => c !== colour))} />}
            label={
              <>
                <Box component="span" sx={{ width: 14, height: 14, borderRadius: "2px", bgcolor: colour, border: "1px solid #0003" }} />
                {colour}
              </>
            }
          />
        ))}
      </Box>
    </PopUp>
  );
}
