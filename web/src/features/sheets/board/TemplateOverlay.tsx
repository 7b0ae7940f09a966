/** The parts of a template, while it is edited on a sheet. */
import Box from "@mui/material/Box";
import type { DisplayList, Template } from "../../../api/client";
import { useFields } from "../../../api/sheets";
import type { Camera } from "../../../canvas/geometry";
import { colours } from "../../../theme/theme";
import type { TemplateEdits } from "../templateCommands";
import { nameOfPart } from "../templateParts";
import { AlignmentLines } from "./AlignmentLines";
import { PartFrames } from "./PartFrames";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

interface Props {
  template: Template;
  display: DisplayList;
  camera: Camera;
  edits: TemplateEdits;
}

export function TemplateOverlay({ template, display, camera, edits }: Props) {
  const { data: fields = NOTHING } = useFields();
  return (
    <>
      <Box
        sx={{
          position: "absolute",
          top: 10,
          left: "50%",
          transform: "translateX(-50%)",
          px: 1.5,
          py: 0.5,
          borderRadius: 1,
          bgcolor: colours.rustPale,
          color: colours.rust,
          fontSize: 12.5,
          fontWeight: 600,
          zIndex: 5000,
          whiteSpace: "nowrap",
          pointerEvents: "none",
        }}
      >
        {t("Editing the template “{name}”", { name: template.name })}
      </Box>
      <PartFrames
        display={display}
        parts={template.spec.parts ?? NOTHING}
        camera={camera}
        nameOf={(part) => nameOfPart(part, fields)}
        onLay={(ends, what) => void edits.lay(ends, what)}
      />
      <AlignmentLines camera={camera} />
    </>
  );
}
