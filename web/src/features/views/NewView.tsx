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
import { t } from "../../words/words";

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
        {t("New view")}
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
            {t("Plan of {storey}", { storey })}
          </MenuItem>
        ))}
        <MenuItem dense onClick={() => void make({ kind: "roof" })}>
          {t("Roof plan")}
        </MenuItem>
        <Divider />
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "section" })}>
          {t("Section, by drawing its line on a plan")}
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "elevation" })}>
          {t("Elevation, by drawing along its face on a plan")}
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "perspective" })}>
          {t("Perspective, by placing eye and target on a plan")}
        </MenuItem>
        <MenuItem dense disabled={!hasPlan} onClick={() => request({ kind: "detail" })}>
          {t("Detail, by outlining a part of another view")}
        </MenuItem>
        {CORNER_CHOICES.map(([corner, name]) => (
          <MenuItem
            dense
            key={corner}
            onClick={() => void make({ kind: "axonometric", corner: corner as ViewSpec["corner"] })}
          >
            {t("Axonometric from the {name}", { name })}
          </MenuItem>
        ))}
      </Menu>
    </>
  );
}
