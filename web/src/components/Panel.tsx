/** A pale sheet on the sand with a heading of its own. */
import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { colours } from "../theme/theme";

export function Panel({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box
      component="section"
      aria-label={name}
      sx={{ bgcolor: colours.sandPale, border: `1px solid ${colours.sandDeep}`, borderRadius: 1, p: 2 }}
    >
      <Box component="h2" sx={{ m: 0, mb: 1.25, fontSize: 14, fontWeight: 650 }}>
        {name}
      </Box>
      {children}
    </Box>
  );
}
