/** What is done more seldom, behind one button. */
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";

export function More({ commands }: { commands: readonly (readonly [name: string, command: () => void])[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        aria-haspopup="menu"
        variant="outlined"
        onClick={(event) => setAnchor(event.currentTarget)}
        sx={{ minWidth: 0 }}
      >
        More…
      </Button>
      <Menu
        open={Boolean(anchor)}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        transitionDuration={0}
        slotProps={{ list: { dense: true } }}
      >
        {commands.map(([name, command]) => (
          <MenuItem
            key={name}
            onClick={() => {
              setAnchor(null);
              command();
            }}
          >
            {name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
