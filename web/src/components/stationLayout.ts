/** Where a station's parts stand: a list at the left, the board, and the ledge below it. */
import { colours } from "../theme/theme";
import { spoken } from "../words/words";

/** Up to this width of the window, px, the ledge takes all of it; German words are longer. */
const NARROW = spoken() === "en" ? 1279 : 1459;

/** One height for all that is selected, px: the board must not jump when something else is. */
export const LEDGE_HEIGHT = 136;
const BESIDE = {
  minWidth: 0,
  minHeight: 0,
  display: "flex",
  flexDirection: "column",
  borderLeft: `1px solid ${colours.sandDeep}`,
} as const;

export const STATION = {
  position: "relative",
  flex: 1,
  minHeight: 0,
  display: "grid",
  gridTemplate: `"list board" minmax(0, 1fr) "list ledge" auto / auto minmax(0, 1fr)`,
  [`@media (max-width: ${NARROW}px)`]: {
    gridTemplate: `"list board" minmax(0, 1fr) "ledge ledge" auto / auto minmax(0, 1fr)`,
  },
} as const;
export const LIST = { gridArea: "list", minHeight: 0, display: "flex", flexDirection: "column" } as const;
export const BOARD = { ...BESIDE, gridArea: "board" } as const;
export const LEDGE = { ...BESIDE, gridArea: "ledge" } as const;
