/** A button that is on or off. */
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { colours } from "../theme/theme";

export function ToggleButton({
  on,
  name,
  tip,
  side,
  onToggle,
}: {
  on: boolean;
  name: string;
  tip: string;
  /** Where the tip stands, where it would lie over other buttons below. */
  side?: "left" | "right";
  onToggle: () => void;
}) {
  return (
    <Tooltip title={tip} placement={side ?? "bottom"}>
      <Button
        variant="outlined"
        aria-pressed={on}
        onClick={onToggle}
        sx={{
          minWidth: 0,
          px: 0.75,
          ...(on ? { bgcolor: colours.rustPale, borderColor: colours.rust } : {}),
        }}
      >
        {name}
      </Button>
    </Tooltip>
  );
}
