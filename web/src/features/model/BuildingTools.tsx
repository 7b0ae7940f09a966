/** What is done to the picture of the building in 3D. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import { ChoiceField } from "../../components/ChoiceField";
import { ToggleButton } from "../../components/ToggleButton";
import { colours } from "../../theme/theme";
import type { Stage, Way } from "./stage";
import { t } from "../../words/words";

/** From where it is looked at first. */
export const FIRST: Way = [1, -1, 0.8];
const DIRECTIONS: Record<string, readonly [string, Way]> = {
  se: [t("From the south-east"), FIRST],
  sw: [t("From the south-west"), [-1, -1, 0.8]],
  nw: [t("From the north-west"), [-1, 1, 0.8]],
  ne: [t("From the north-east"), [1, 1, 0.8]],
  south: [t("From the south"), [0, -1, 0]],
  east: [t("From the east"), [1, 0, 0]],
  north: [t("From the north"), [0, 1, 0]],
  west: [t("From the west"), [-1, 0, 0]],
  above: [t("From above"), [0, 0, 1]],
};

interface Props {
  stage: Stage | null;
  measuring: boolean;
  /** Whether what has changed is coloured; null where nothing has. */
  changed: boolean | null;
  onMeasure: () => void;
  onChanged: () => void;
  onSave: () => void;
}

export function BuildingTools({ stage, measuring, changed, onMeasure, onChanged, onSave }: Props) {
  const [direction, setDirection] = useState("se");
  const [deep, setDeep] = useState(false);
  return (
    <Box
      sx={{
        px: 1.25,
        py: 0.75,
        display: "flex",
        flexWrap: "wrap",
        alignItems: "flex-end",
        gap: 0.75,
        borderBottom: `1px solid ${colours.sandDeep}`,
      }}
    >
      <ChoiceField
        label={t("Direction")}
        width={182}
        value={direction}
        choices={Object.entries(DIRECTIONS).map(([key, [name]]) => [key, name] as const)}
        onChoose={(key) => {
          setDirection(key);
          stage?.look(DIRECTIONS[key]?.[1] ?? FIRST);
        }}
      />
      <Button variant="outlined" onClick={() => stage?.fit()}>
        {t("Fit")}
      </Button>
      <ToggleButton
        on={deep}
        name={t("Perspective")}
        tip={t("Perspective instead of parallel projection")}
        onToggle={() => {
          setDeep(!deep);
          stage?.setPerspective(!deep);
        }}
      />
      <ToggleButton
        on={measuring}
        name={t("Measure")}
        tip={t("Click two corners or edges")}
        onToggle={onMeasure}
      />
      {changed !== null && (
        <ToggleButton
          on={changed}
          name={t("What changed")}
          tip={t("Colour what was added, moved, reshaped, and what was removed")}
          onToggle={onChanged}
        />
      )}
      <Box sx={{ ml: "auto" }}>
        <Tooltip title={t("Save what is shown here as a view")}>
          <Button variant="outlined" disabled={!stage} onClick={onSave}>
            {t("Save as a view")}
          </Button>
        </Tooltip>
      </Box>
    </Box>
  );
}
