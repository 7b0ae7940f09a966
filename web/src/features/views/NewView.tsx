/** The menu of new views: made at once, or drawn on a plan. */
import Button from "@mui/material/Button";
import Divider from "@mui/material/Divider";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useState } from "react";
import type { ViewSpec } from "../../api/client";
import type { ViewEdits } from "../../sync/views";
import type { NewViewRequest } from "./DrawOn";
import { CORNER_CHOICES } from "./kinds";

export function NewView({
  edits,
  hasPlan,
  storeys,
  onOpen,
  onRequest,
}: {
  edits: ViewEdits;
  hasPlan: boolean;
  storeys: readonly string[];
  onOpen: (id: string) => void;
  onRequest: (w: NewViewRequest) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  const make = async (spec: ViewSpec) => {
    close();
    const made = await edits.make(spec);
    if (made) onOpen(made);
  };
  const request = (wanted: NewViewRequest) => {
    close();
    onRequest(wanted);
  };
  return (
    <>
      <Button variant="contained" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        New view
      </Button>
      <Menu
        anchorEl={anchor}
        open={Boolean(anchor)}
        onClose={close}
        transitionDuration={0}
        anchorOrigin={{ vertical: "bottom", horizontal: "right" }}
        transformOrigin={{ vertical: "top", horizontal: "right" }}
      >
        {storeys.map((storey) => (
          <MenuItem dense key={`plan ${storey}`} onClick={() => void make({ kind: "plan", storey })}>
            Plan of {storey}
          </MenuItem>
        ))}
        <MenuItem dense onClick={() => void make({ kind: "roof" })}>
          Roof plan
        </MenuItem>
        <Divider />
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "section" })}>
          Section, by drawing its line on a plan
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "elevation" })}>
          Elevation, by drawing along its face on a plan
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "perspective" })}>
          Perspective, by placing eye and target on a plan
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "detail" })}>
          Detail, by outlining a part of another view
        </MenuItem>
        {CORNER_CHOICES.map(([corner, name]) => (
          <MenuItem
            dense
            key={corner}
            onClick={() => void make({ kind: "axonometric", corner: corner as ViewSpec["corner"] })}
          >
            Axonometric from the {name}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
