/** A station with nothing to show yet: what is missing, and what to do next. */
import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { colours } from "../theme/theme";

export function EmptyState({ text, children }: { text: string; children: ReactNode }) {
  return (
    <Box
      sx={{
        flex: 1,
        display: "flex",
        flexDirection: "column",
        alignItems: "center",
        justifyContent: "center",
        gap: 2,
        bgcolor: colours.sand,
        fontSize: 15,
      }}
    >
      {text}
      {children}
    </Box>
  );
}
