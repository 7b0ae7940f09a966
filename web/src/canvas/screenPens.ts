/**
 * Pens of a drawing on the screen alone: a view has no scale, so its lines have the screen's widths, in
 * pixels.
 */
import type { DisplayList, DrawingItem } from "../api/client";
import { colours } from "../theme/theme";

const SOLID: number[] = [];
const SOFT = "#4d565d";

/** Pens by line role; `weight` 1 is for a small picture. */
export function screenPens(weight = 1) {
  const pen = (width: number, colour: string, pattern = SOLID) => ({
    width: width * weight,
    colour,
    pattern,
    screen: 100,
  });
  return {
    hidden: pen(0.25, SOFT, [12, 6]),
    overhead: pen(0.25, SOFT, [12, 6]),
    symbol: pen(0.25, SOFT),
    far: pen(0.22, "#7b858c"),
    seam: pen(0.25, "#7b858c"),
    edge: pen(0.3, SOFT),
    profile: pen(0.5, colours.ink),
    cut: pen(0.8, colours.ink),
  };
}

/** On the screen alone what is cut is toned. */
const CARD_CUTS: DrawingItem["cuts"] = [
  {
    match: "",
    fill: "#d9d6cf",
    opacity: 100,
    spacing: 1,
    angle: 0,
    width: 0.13,
    colour: SOFT,
    screen: 100,
    hatch: "",
  },
];

/** A drawing that is all there is to see; where it lies is said by a geometry under the name “view”. */
export const drawingOf = (linework: string, pens: DrawingItem["pens"]): DrawingItem => ({
  type: "drawing",
  viewport: "view",
  linework,
  clip: [],
  ratio: 1,
  turn: 0,
  place: [0, 0],
  pens,
  layers: {},
  cuts: CARD_CUTS,
  opaque: false,
  hidden: [],
  redrawn: [],
});

/** A display list of nothing but some items. */
export const onlyItems = (width: number, height: number, items: DisplayList["items"]): DisplayList => ({
  width,
  height,
  items,
  links: [],
  tables: [],
  fields: [],
  titles: [],
  rooms: [],
  pieces: [],
  frame: { x: 0, y: 0, width: 0, height: 0 },
  shrink: 1,
  touch_ups: [],
});
