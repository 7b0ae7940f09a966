/** The ledge along the bottom of the board: everything about what is selected. */
import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { colours } from "../theme/theme";

/** One height for all that is selected: the board must not jump when something else is. */
const LEDGE_HEIGHT = 136;

export function Ledge({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      component="section"
      aria-label={label}
      sx={{
        flexShrink: 0,
        height: LEDGE_HEIGHT,
        px: 2,
        pt: 1,
        pb: 1.25,
        bgcolor: colours.sandLight,
        borderTop: `1px solid ${colours.sandShade}`,
        boxShadow: "inset 0 3px 0 #fff8",
        display: "flex",
        alignItems: "flex-start",
        gap: 1.5,
        overflowX: "auto",
      }}
    >
      {children}
    </Box>
  );
}

/** A few things that belong together, under one heading. */
export function Group({ name, grow, children }: { name: string; grow?: boolean; children: ReactNode }) {
  return (
    <Box role="group" aria-label={name} sx={{ flex: grow ? 1 : "0 0 auto", minWidth: 0 }}>
      <Box sx={{ fontSize: 11.5, fontWeight: 650, mb: 0.5, height: 16, whiteSpace: "nowrap" }}>{name}</Box>
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end", flexWrap: "nowrap" }}>{children}</Box>
    </Box>
  );
}

/** Buttons in a row of a group, level with fields that have their labels above them. */
export function Buttons({ children }: { children: ReactNode }) {
  return <Box sx={{ display: "flex", gap: 0.5, pt: "15px" }}>{children}</Box>;
}

/** Two rows, one above the other, within a group. */
export function Rows({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 0.5, alignItems: "flex-start" }}>
      {children}
    </Box>
  );
}
