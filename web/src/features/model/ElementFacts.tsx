/** What is known of the element that was picked in 3D. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { colours } from "../../theme/theme";
import type { SolidElement } from "./solid";
import { t } from "../../words/words";

interface Props {
  element: SolidElement;
  /** How many others are picked beside it. */
  more: number;
  onHide: () => void;
  /** Make an elevation that looks straight at the face that was picked, if it stands upright. */
  onFace?: () => void;
}

export function ElementFacts({ element, more, onHide, onFace }: Props) {
  const rows = [
    [t("Class"), element.class],
    [t("Storey"), element.storey || t("none")],
    [t("Layer"), element.layer],
    [t("Material"), element.material],
    [t("Id"), element.id],
  ] as const;
  return (
    <Box
      component="section"
      aria-label={t("Picked element")}
      sx={{ p: 1.25, borderTop: `1px solid ${colours.sandDeep}`, bgcolor: colours.sandLight, fontSize: 12.5 }}
    >
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", mb: 0.5 }}>
        <Box sx={{ fontWeight: 650, overflowWrap: "anywhere" }}>
          {element.name || element.class}
          {more > 0 && t(" and {more} more", { more })}
        </Box>
        <Button onClick={onHide} sx={{ minHeight: 22, px: 0.75, minWidth: 0 }}>
          {t("Hide")}
        </Button>
      </Box>
      {rows.map(([name, value]) => (
        <Box key={name} sx={{ display: "flex", gap: 1 }}>
          <Box sx={{ width: 56, flexShrink: 0, color: "text.secondary" }}>{name}</Box>
          <Box sx={{ overflowWrap: "anywhere" }}>{value}</Box>
        </Box>
      ))}
      {onFace && (
        <Tooltip title={t("Make an elevation square to the face you clicked")}>
          <Button onClick={onFace} sx={{ px: 0.75, ml: -0.75, minHeight: 24 }}>
            {t("Elevation of this face")}
          </Button>
        </Tooltip>
      )}
    </Box>
  );
}
