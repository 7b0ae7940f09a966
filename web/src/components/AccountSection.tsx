/** A part of one's account, under a heading with a sentence about it. */
import Box from "@mui/material/Box";
import type { ReactNode } from "react";

interface Props {
  title: string;
  text: string;
  children: ReactNode;
}

export function AccountSection({ title, text, children }: Props) {
  return (
    <Box component="section" aria-label={title}>
      <Box component="h3" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
        {title}
      </Box>
      <Box sx={{ fontSize: 12, color: "text.secondary", mb: 1 }}>{text}</Box>
      {children}
    </Box>
  );
}
