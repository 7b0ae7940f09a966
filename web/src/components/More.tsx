/** What is done more seldom, behind one button. */
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import { useState } from "react";
import { commandItems, type Command } from "./CommandItems";
import { t } from "../words/words";

export function More({ commands }: { commands: readonly Command[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        aria-haspopup="menu"
        variant="outlined"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ minWidth: 0 }}
      >
        {t("More…")}
      </Button>
      <Menu
        open={Boolean(anchor)}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        transitionDuration={0}
        slotProps={{ list: { dense: true } }}
      >
        {commandItems([commands], () => setAnchor(null))}
      </Menu>
    </>
  );
}
