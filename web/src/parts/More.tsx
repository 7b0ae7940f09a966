/** What is done more seldom, behind one button. */
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";

export function More({ deeds }: { deeds: readonly (readonly [name: string, deed: () => void])[] }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button aria-haspopup="menu" variant="outlined" onClick={(event) => setAnchor(event.currentTarget)} sx={{ minWidth: 0 }}>
        More…
      </Button>
      <Menu open={Boolean(anchor)} anchorEl={anchor} onClose={() => setAnchor(null)} transitionDuration={0} slotProps={{ list: { dense: true } }}>
        {deeds.map(([name, deed]) => (
          <MenuItem
            key={name}
            onClick={() => {
              setAnchor(null);
              deed();
            }}
          >
            {name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
