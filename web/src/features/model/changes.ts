/**
 * The colours of what changed, in the list and in 3D: of our own, and apart from each other in light and dark
 * too.
 */
export const CHANGE_COLOURS = {
  added: "#2f7d5b",
  removed: "#7a5a86",
  moved: "#c98a1b",
  reshaped: "#9c3f24",
} as const;
