/**
 * What colour a pen leaves on paper, and the working colours that tell line roles apart on the board alone.
 */
import type { DrawingItem } from "../api/client";

/** Line roles, the heaviest first: where pens are as wide, the last is drawn first. */
export const ROLES = ["cut", "profile", "edge", "seam", "far", "overhead", "hidden", "symbol"] as const;

export type PaperPen = DrawingItem["pens"][string];

/** A colour of which so many per cent are left on white paper. */
export function screened(colour: string, screen: number): string {
  if (screen >= 100) return colour;
  const parts = [1, 3, 5].map((k) =>
    Math.round(255 - ((255 - parseInt(colour.slice(k, k + 2), 16)) * screen) / 100),
  );
  return `#${parts.map((part) => part.toString(16).padStart(2, "0")).join("")}`;
}

/** What a change says, without what it leaves as it is. */
export const stated = (change: DrawingItem["layers"][string] | undefined) =>
  Object.fromEntries(Object.entries(change ?? {}).filter(([, value]) => value != null)) as Partial<PaperPen>;

export const WORKING: Record<string, string> = {
  cut: "#9c3f24",
  profile: "#1f2b33",
  edge: "#2d5c66",
  seam: "#8c7a3f",
  far: "#8a949a",
  overhead: "#6b4c86",
  hidden: "#4f7d57",
  symbol: "#4d565d",
};
const WORKING_FILL = "#f0e3d8";
const WORKING_HATCH = "#c9b69a";

/**
 * A drawing's pens in working colours: each role has its own, with the widths and patterns that it plots
 * with.
 */
export function inWorkingColours({
  pens,
  layers,
  cuts,
  redrawn,
}: Pick<DrawingItem, "pens" | "layers" | "cuts" | "redrawn">) {
  const inOwn = <Change extends object>(change: Change) => ({
    ...change,
    colour: undefined,
    screen: undefined,
  });
  const filled = <Cut extends DrawingItem["cuts"][number]>(cut: Cut) => ({
    ...cut,
    fill: cut.fill && WORKING_FILL,
    colour: WORKING_HATCH,
    screen: 100 as const,
  });
  return {
    pens: Object.fromEntries(
      Object.entries(pens).map(([role, pen]) => [
        role,
        { ...pen, colour: WORKING[role] ?? pen.colour, screen: 100 },
      ]),
    ),
    layers: Object.fromEntries(Object.entries(layers).map(([name, change]) => [name, inOwn(change)])),
    cuts: cuts.map(filled),
    redrawn: redrawn.map((each) => ({
      ...each,
      change: inOwn(each.change),
      ...(each.cut && { cut: filled(each.cut) }),
    })),
  };
}
