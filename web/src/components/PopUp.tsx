/** A button on the ledge, and what it opens above it. */
import Button from "@mui/material/Button";
import Popover from "@mui/material/Popover";
import { useEffect, useState, type ReactNode } from "react";

export function PopUp({ button, name, children }: { button: string; name: string; children: ReactNode }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  useEffect(() => {
    // What had the focus may be gone with what was just done in here; Escape still closes it.
    const press = (event: KeyboardEvent) =>
      event.key === "Escape" && document.activeElement === document.body && setAnchor(null);
    if (anchor) window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [anchor]);
  return (
    <>
      <Button variant="outlined" aria-haspopup="dialog" onClick={(event) => setAnchor(event.currentTarget)}>
        {button}
      </Button>
      <Popover
        open={Boolean(anchor)}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        transitionDuration={0}
        anchorOrigin={{ vertical: "top", horizontal: "center" }}
        transformOrigin={{ vertical: "bottom", horizontal: "center" }}
        slotProps={{ paper: { role: "dialog", "aria-label": name } }}
      >
        {children}
      </Popover>
    </>
  );
}
