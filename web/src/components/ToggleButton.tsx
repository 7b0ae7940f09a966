/** A button that is on or off. */
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { colours } from "../theme/theme";

export function ToggleButton({
  on,
  name,
  tip,
  onToggle,
}: {
  on: boolean;
  name: string;
  tip: string;
  onToggle: () => void;
}) {
  return (
    <Tooltip title={tip}>
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
