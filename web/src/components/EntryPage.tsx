/** What is seen before anybody is signed in: one small form on the sand. */
import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { Wordmark } from "./Wordmark";
import { colours } from "../theme/theme";

interface Props {
  text: ReactNode;
  /** What Enter does; nothing where there is nothing to do. */
  onSubmit?: () => void;
  children?: ReactNode;
}

export function EntryPage({ text, onSubmit, children }: Props) {
  return (
    <Box
      component="main"
      sx={{
        height: "100%",
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        bgcolor: colours.sand,
      }}
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          onSubmit?.();
        }}
        sx={{
          width: 332,
          maxWidth: "calc(100% - 24px)",
          p: 4,
          display: "flex",
          flexDirection: "column",
          gap: 2,
          bgcolor: colours.sandPale,
          border: `1px solid ${colours.sandDeep}`,
          boxShadow: "0 3px 14px rgba(74, 60, 34, 0.18)",
        }}
      >
        <Box component="h1" sx={{ m: 0, display: "flex" }}>
          <Wordmark size={26} />
        </Box>
        <Box sx={{ fontSize: 13, color: "text.secondary", mb: 0.5 }}>{text}</Box>
        {children}
      </Box>
    </Box>
  );
}
