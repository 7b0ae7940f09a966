/**
 * The fields of the title block under the pointer: a click edits one; one that is overridden on this sheet
 * shows it.
 */
import ButtonBase from "@mui/material/ButtonBase";
import Popover from "@mui/material/Popover";
import { useState, type ReactNode } from "react";
import type { DisplayList, Field } from "../../../api/client";
import { colours } from "../../../theme/theme";
import { toScreen, type Camera } from "../../../canvas/geometry";
import { t } from "../../../words/words";
import { said } from "../../../words/said";

interface Props {
  boxes: DisplayList["fields"];
  fields: readonly Field[];
  camera: Camera;
  /** What edits a field. */
  editor: (field: Field) => ReactNode;
}

export function FieldFrames({ boxes, fields, camera, editor }: Props) {
  const [open, setOpen] = useState<{ anchor: HTMLElement; field: Field } | null>(null);
  return (
    <>
      {boxes.map(({ field: key, box, overridden }, k) => {
        const field = fields.find((f) => f.key === key);
        if (!field) return null;
        const [left, top] = toScreen(camera, box.x, box.y + box.height);
        return (
          <ButtonBase
            key={k}
            aria-label={t("Field: {caption}{which}", {
              caption: said(field.caption),
              which: overridden ? t(", overridden on this sheet") : "",
            })}
            title={
              overridden
                ? t("{caption}: overridden on this sheet", { caption: said(field.caption) })
                : said(field.caption)
            }
            onClick={(event) => setOpen({ anchor: event.currentTarget, field })}
            style={{ left, top, width: box.width * camera.scale, height: box.height * camera.scale }}
            sx={{
              position: "absolute",
              zIndex: 1,
              "&:hover": { bgcolor: `${colours.rust}14` },
              "&::after": overridden
                ? {
                    content: '""',
                    position: "absolute",
                    right: 2,
                    top: 2,
                    width: 6,
                    height: 6,
                    borderRadius: "50%",
                    bgcolor: colours.rust,
                  }
                : undefined,
            }}
          />
        );
      })}
      <Popover
        open={Boolean(open)}
        anchorEl={open?.anchor}
        onClose={() => setOpen(null)}
        transitionDuration={0}
        anchorOrigin={{ vertical: "top", horizontal: "left" }}
        transformOrigin={{ vertical: "bottom", horizontal: "left" }}
        slotProps={{
          paper: {
            role: "dialog",
            "aria-label": said(open?.field.caption ?? ""),
            sx: { p: 1.5, width: 320 },
          },
        }}
      >
        {open && editor(open.field)}
      </Popover>
    </>
  );
}
