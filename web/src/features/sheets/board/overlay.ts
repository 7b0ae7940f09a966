/** How what is drawn over the sheet lies on the board: over all of it, and in nobody's way. */
export const OVERLAY = {
  position: "absolute",
  inset: 0,
  width: "100%",
  height: "100%",
  pointerEvents: "none",
  zIndex: 4,
} as const;
