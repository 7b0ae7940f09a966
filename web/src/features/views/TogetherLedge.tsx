/** The ledge for several chosen views: what is set here is set for all of them. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { LineSettings, ModelVersion, View, ViewSpec } from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { Group, Ledge, Rows } from "../../components/Ledge";
import { ShownMenu } from "../../components/ShownMenu";
import type { ViewEdits } from "../../sync/views";
import { fitting, shownByAll, withNames } from "./kinds";
import { LineSettingsField } from "./LineSettingsField";
import { inSentence, t } from "../../words/words";

const SWITCHES = [
  ["hidden", t("Hidden lines")],
  ["seams", t("Joints within one material")],
  ["overhead", t("Overhead lines")],
] as const;

export function TogetherLedge({
  views,
  version,
  edits,
  onDone,
}: {
  views: View[];
  version: ModelVersion | undefined;
  edits: ViewEdits;
  onDone: () => void;
}) {
  const onlyPlans = views.every((v) => v.spec.kind === "plan");
  const outOfDate = views.filter((v) => v.state === "out_of_date" || v.state === "undrawn");
  const set = (settings: LineSettings, what: string) =>
    void edits.changeSettings(
      views,
      settings,
      {},
      t("{what} of {count} views", { what, count: views.length }),
    );
  const setAll = (to: (spec: ViewSpec) => ViewSpec, what: string) =>
    void edits.changeAll(
      views,
      (v) => to(v.spec),
      t("{what} of {count} views", { what, count: views.length }),
    );
  /** What all of them have; blank where they differ. */
  const figure = (key: "cut" | "depth") => {
    const values = new Set(views.map((v) => v.spec[key] ?? ""));
    return values.size === 1 ? String([...values][0]) : "";
  };
  const commit = (key: "cut" | "depth", label: string, typed: string) => {
    const number = Number(typed);
    if (typed && !Number.isFinite(number)) return;
    setAll(({ [key]: _, ...spec }) => (typed ? { ...spec, [key]: number } : spec), label);
  };
  const shown = shownByAll(views.map((v) => v.spec.shown ?? {}));
  const hasDepth = views.every((v) => ["plan", "roof", "elevation", "section"].includes(v.spec.kind));
  const switched = (key: "hidden" | "seams" | "overhead") => {
    const on = views.filter((v) => v.spec.line_settings?.[key]).length;
    return on === views.length ? "on" : on ? "mixed" : "off";
  };
  const common = (key: "crease" | "far", usual: string) => {
    const values = new Set(views.map((v) => v.spec.line_settings?.[key] ?? null));
    const [only] = [...values];
    return values.size > 1 ? "" : only == null ? usual : String(only);
  };
  const switches = SWITCHES.filter(([key]) => key !== "overhead" || onlyPlans);
  const switchField = ([key, name]: (typeof SWITCHES)[number]) => (
    <ChoiceField
      key={key}
      label={name}
      width={key === "seams" ? 148 : 96}
      value={switched(key)}
      choices={[
        ...(switched(key) === "mixed" ? [["mixed", t("Mixed")] as const] : []),
        ["off", t("No")],
        ["on", t("Yes")],
      ]}
      onChoose={(value) => value !== "mixed" && set({ [key]: value === "on" }, inSentence(name))}
    />
  );
  return (
    <Ledge label={t("Ledge: chosen views")}>
      <Group
        name={t("{count} {which} chosen", {
          count: views.length,
          which: views.length === 1 ? t("view") : t("views"),
        })}
      >
        <Box sx={{ width: 190, fontSize: 12.5, color: "text.secondary", maxHeight: 88, overflow: "hidden" }}>
          {views.map((v) => v.name).join(", ")}
        </Box>
      </Group>
      <Group name={t("Lines, for all of them")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
            <LineSettingsField
              project={views[0]?.project ?? ""}
              settings={
                new Set(views.map((v) => JSON.stringify(v.spec.line_settings ?? {}))).size === 1
                  ? (views[0]?.spec.line_settings ?? {})
                  : undefined
              }
              onApply={(to, name) =>
                set(fitting(onlyPlans ? "plan" : "roof", to), t("line settings “{name}”", { name }))
              }
            />
            {switches.filter(([key]) => key !== "seams").map(switchField)}
          </Box>
          <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
            {switches.filter(([key]) => key === "seams").map(switchField)}
            <FigureField
              number
              label={t("Hide edges flatter than")}
              unit="°"
              width={130}
              value={common("crease", "20")}
              onCommit={(value) => set({ crease: Number(value) }, t("hide flat edges"))}
            />
            <FigureField
              label={t("Lighten beyond")}
              unit="m"
              width={98}
              value={common("far", "") && String(Number(common("far", "")) / 1000)}
              onCommit={(value) =>
                set({ far: value ? Number(value.replace(",", ".")) * 1000 : null }, t("lighten far lines"))
              }
            />
          </Box>
        </Rows>
      </Group>
      <Group name={t("Shown, in all of them")}>
        <Rows>
          <ShownMenu
            shown={shown}
            facts={version?.facts}
            onChange={(key, names) =>
              setAll((spec) => withNames(spec, key, shown[key] ?? [], names), t("what is shown"))
            }
          />
          <Box sx={{ display: "flex", gap: 0.75 }}>
            {onlyPlans && (
              <FigureField
                number
                label={t("Cut above floor")}
                unit="mm"
                width={112}
                value={figure("cut")}
                onCommit={(typed) => commit("cut", "cut", typed)}
              />
            )}
            {hasDepth && (
              <FigureField
                number
                label={t("Depth")}
                unit="mm"
                width={92}
                value={figure("depth")}
                onCommit={(typed) => commit("depth", "depth", typed)}
              />
            )}
          </Box>
        </Rows>
      </Group>
      <Box sx={{ ml: "auto", pt: 2.5, display: "flex", gap: 1 }}>
        {outOfDate.length > 0 && (
          <Button variant="contained" onClick={() => void edits.bringUpToDate(outOfDate)}>
            {t("Update {count}", { count: outOfDate.length })}
          </Button>
        )}
        <Button variant="outlined" onClick={onDone}>
          {t("Select none")}
        </Button>
      </Box>
    </Ledge>
  );
}
