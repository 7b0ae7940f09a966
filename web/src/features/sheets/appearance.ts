/** What a viewport shows of its view: of its own, or as the view says for all. */
import type { Appearance, View, Viewport } from "../../api/client";

/** What the core's Appearance is where nobody has chosen. */
export const LINES_ONLY: Appearance = {
  show: "lines",
  light: { source: "convention", month: 6, day: 21, hour: 15, latitude: 50, soft: false },
  shadows: 0.6,
  sky: 0.5,
  fading: 0,
  background: "none",
  background_colour: "#b9cfe0",
  areas: { of: "none", colour: "#6b7378", opacity: 35, hatched: false },
  textures: true,
  backdrop: "",
};

export const appearanceOf = (viewport: Viewport, view: View | undefined): Appearance =>
  viewport.appearance ?? view?.appearance ?? LINES_ONLY;

export const isLinesOnly = ({ show, areas }: Appearance) => show === "lines" && areas.of === "none";

/** For whom something is chosen at first: for the view where the viewport shows what that says. */
export const scopeOf = (viewport: Viewport, view: View | undefined): "view" | "viewport" =>
  view && viewport.appearance === null && !isLinesOnly(view.appearance) ? "view" : "viewport";
