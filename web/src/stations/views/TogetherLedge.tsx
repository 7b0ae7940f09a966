/** The ledge for several chosen views: what is set here is set for all of them. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { View } from "../../api/client";
import { ChoiceField } from "../../parts/ChoiceField";
import { FigureField } from "../../parts/FigureField";
import { Group, Ledge } from "../../parts/Ledge";
import type { ViewEdits } from "./edits";
import type { Treatment } from "./kinds";
import { TreatmentField } from "./TreatmentField";

const SWITCHES = [
  ["hidden", "Hidden lines"],
  ["seams", "Seams"],
  ["overhead", "Overhead lines"],
] as const;

export function TogetherLedge({ views, edits, onDone }: { views: View[]; edits: ViewEdits; onDone: () => void }) {
  const onlyPlans = views.every((v) => v.spec.kind === "plan");
  const behind = views.filter((v) => v.state === "behind" || v.state === "undrawn");
  const set = (treatment: Treatment, what: string) => void edits.treat(views, treatment, {}, `${what} of ${views.length} views`);
  const switched = (key: "hidden" | "seams" | "overhead") => {
    const on = views.filter((v) => v.spec.treatment?.[key]).length;
    return on === views.length ? "on" : on ? "mixed" : "off";
  };
  const common = (key: "crease" | "far", usual: string) => {
    const values = new Set(views.map((v) => v.spec.treatment?.[key] ?? null));
    const [only] = [...values];
    return values.size > 1 ? "" : only == null ? usual : String(only);
  };
  return (
    <Ledge label="Ledge: chosen views">
      <Group name={`${views.length} ${views.length === 1 ? "view" : "views"} chosen`}>
        <Box sx={{ width: 190, fontSize: 12.5, color: "text.secondary", maxHeight: 88, overflow: "hidden" }}>{views.map((v) => v.name).join(", ")}</Box>
      </Group>
      <Group name="Lines, for all of them">
        <TreatmentField
          project={views[0]?.project ?? ""}
          treatment={new Set(views.map((v) => JSON.stringify(v.spec.treatment ?? {}))).size === 1 ? (views[0]?.spec.treatment ?? {}) : undefined}
          onGive={(to, name) => set(onlyPlans ? to : { ...to, overhead: false }, `treatment “${name}”`)}
        />
        {SWITCHES.filter(([key]) => key !== "overhead" || onlyPlans).map(([key, name]) => (
          <ChoiceField
            key={key}
            label={name}
            width={96}
            value={switched(key)}
            choices={[...(switched(key) === "mixed" ? [["mixed", "Mixed"] as const] : []), ["off", "No"], ["on", "Yes"]]}
            onChoose={(value) => value !== "mixed" && set({ [key]: value === "on" }, name.toLowerCase())}
          />
        ))}
        <FigureField number label="Crease" unit="°" width={76} value={common("crease", "20")} onCommit={(value) => set({ crease: Number(value) }, "crease angle")} />
        <FigureField
          label="Far beyond"
          unit="m"
          width={92}
          value={common("far", "") && String(Number(common("far", "")) / 1000)}
          onCommit={(value) => set({ far: value ? Number(value.replace(",", ".")) * 1000 : null }, "far lines")}
        />
      </Group>
      <Box sx={{ ml: "auto", pt: 2.5, display: "flex", gap: 1 }}>
        {behind.length > 0 && (
          <Button variant="contained" onClick={() => void edits.bringUpToDate(behind)}>
            Bring {behind.length} up to date
          </Button>
        )}
        <Button variant="outlined" onClick={onDone}>
          Choose none
        </Button>
      </Box>
    </Ledge>
  );
}
