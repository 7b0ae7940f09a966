/** A dialog with its title, a sentence about it, and at the foot the ways out of it. */
import Box from "@mui/material/Box";
import Dialog from "@mui/material/Dialog";
import { useId, type FormEvent, type ReactNode } from "react";

interface Props {
  title: string;
  text?: ReactNode;
  width?: "xs" | "sm" | "md" | "lg";
  /** Whether it is only as wide as what is in it. */
  fits?: boolean;
  onClose: () => void;
  /** What Enter does. */
  onSubmit?: () => void;
  /** Its buttons, which stand at the right. */
  foot: ReactNode;
  children?: ReactNode;
}

export function TitledDialog({ title, text, width = "sm", fits, onClose, onSubmit, foot, children }: Props) {
  const id = useId();
  return (
    <Dialog
      open
      onClose={onClose}
      maxWidth={width}
      fullWidth={!fits}
      transitionDuration={0}
      aria-labelledby={id}
    >
      <Box
        component={onSubmit ? "form" : "div"}
        onSubmit={
          onSubmit &&
          ((event: FormEvent) => {
            event.preventDefault();
            onSubmit();
          })
        }
        sx={{ p: 2.5, display: "flex", flexDirection: "column", gap: 1.25, minHeight: 0 }}
      >
        <Box component="h2" id={id} sx={{ m: 0, fontSize: 15, fontWeight: 650 }}>
          {title}
        </Box>
        {text && <Box sx={{ fontSize: 13, color: "text.secondary" }}>{text}</Box>}
        {children}
        <Box sx={{ display: "flex", justifyContent: "flex-end", gap: 1 }}>{foot}</Box>
      </Box>
    </Dialog>
  );
}
