/** Kinds of view: how they are grouped, and what a view's figures say of it in a few words. */
import { lengthOf, type Lengths } from "../../components/lengths";
import type { LineSettings, Shown, ViewSpec } from "../../api/client";
import { t } from "../../words/words";

export type Spec = ViewSpec;
export type Kind = Spec["kind"];

/** Groups on the wall, in the order of a set. */
export const GROUPS: readonly (readonly [name: string, kinds: readonly Kind[]])[] = [
  [t("Plans"), ["plan", "roof"]],
  [t("Elevations"), ["elevation"]],
  [t("Sections"), ["section"]],
  [t("Axonometrics"), ["axonometric"]],
  [t("Perspectives"), ["perspective"]],
  [t("Details"), ["detail"]],
  [t("Drawings from others"), ["received"]],
];

const SIDES: Record<string, string> = {
  north: t("North"),
  east: t("East"),
  south: t("South"),
  west: t("West"),
};
const CORNERS: Record<string, string> = {
  ne: t("north-east"),
  se: t("south-east"),
  sw: t("south-west"),
  nw: t("north-west"),
};
const KINDS: Readonly<Record<string, string>> = {
  plan: t("plan"),
  roof: t("roof plan"),
  elevation: t("elevation"),
  section: t("section"),
};
export const CORNER_CHOICES = Object.entries(CORNERS);

/** What a view looks at, in a few words. */
export function summary(spec: Spec, lengths: Lengths): string {
  switch (spec.kind) {
    case "plan":
      return t("{storey}, cut at {cut}", { storey: spec.storey, cut: lengthOf(spec.cut ?? 1200, lengths) });
    case "roof":
      return t("from above");
    case "elevation":
      return spec.side
        ? t("{side} side{which}", { side: SIDES[spec.side], which: spec.near == null ? "" : t(", limited") })
        : t("at {bearing}°", { bearing: spec.bearing });
    case "section":
      return (spec.line?.length ?? 0) > 2 ? t("along a line with jogs") : t("along a line");
    case "axonometric":
      return spec.corner
        ? t("from the {corner}", { corner: CORNERS[spec.corner] })
        : t("from {bearing}°, {altitude}° high", { bearing: spec.bearing, altitude: spec.altitude });
    case "perspective":
      return t("{angle}° field of view", { angle: spec.angle ?? 60 });
    case "detail":
      return t("of a {view}", { view: KINDS[spec.of?.kind ?? ""] ?? t("view") });
    case "received":
      return (spec.page ?? 1) > 1
        ? t("{name}, page {page}", { name: spec.name ?? "", page: spec.page })
        : (spec.name ?? "");
  }
}

/** A spec with other settings. */
export const withLineSettings = (spec: Spec, change: LineSettings): Spec => ({
  ...spec,
  line_settings: { ...spec.line_settings, ...change },
});
export const withShown = (spec: Spec, change: Shown): Spec => ({
  ...spec,
  shown: { ...spec.shown, ...change },
});

type Names = "without_layers" | "without_storeys" | "without_classes" | "without";
const NAMES: readonly Names[] = ["without_layers", "without_storeys", "without_classes", "without"];

/** What all of several views leave out. */
export function shownByAll(every: readonly Shown[]): Shown {
  const common = (key: Names) =>
    (every[0]?.[key] ?? []).filter((name) => every.every((shown) => shown[key]?.includes(name)));
  return Object.fromEntries(NAMES.map((key) => [key, common(key)]));
}

/** A spec that leaves out what was added to a list of names, and shows what was taken from it; no more. */
export function withNames(spec: Spec, key: Names, before: readonly string[], now: readonly string[]): Spec {
  const kept = (spec.shown?.[key] ?? []).filter((name) => !before.includes(name) || now.includes(name));
  return withShown(spec, { [key]: [...new Set([...kept, ...now])].sort() });
}

/** Switches for lines that only plans have: what a view of another kind is never given. */
const OF_PLANS = {
  overhead: t("All that is above the cut"),
  outline_above: t("Outline of what is above the cut"),
  beams_above: t("Beams above the cut"),
  below: t("What is below the floor, as hidden lines"),
} as const;
type Extra = keyof typeof OF_PLANS | "opening_windows";

/** The switches for more lines that a kind of view has, each with its name. */
export function extraLinesOf(kind: Kind): (readonly [key: Extra, name: string])[] {
  if (kind === "plan") return Object.entries(OF_PLANS) as [Extra, string][];
  return kind === "elevation" || kind === "section" ? [["opening_windows", t("How windows open")]] : [];
}

/** Whether a kind of view can show contours of the terrain. */
export const hasContours = (kind: Kind) => kind === "plan" || kind === "roof";

/** Settings as a view of a kind can have them. */
export const fitting = (kind: Kind, settings: LineSettings): LineSettings =>
  kind === "plan"
    ? settings
    : { ...settings, ...Object.fromEntries(Object.keys(OF_PLANS).map((key) => [key, false])) };
