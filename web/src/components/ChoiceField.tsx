/** A choice among a few, under a small label. */
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import Select from "@mui/material/Select";
import { spoken } from "../words/words";

/** Fields are as wide as English words need; German ones are longer. */
const STRETCH = spoken() === "en" ? 1 : 1.16;

interface Props {
  label: string;
  value: string;
  choices: readonly (readonly [value: string, name: string])[];
  width?: number | string;
  onChoose: (value: string) => void;
}

export function ChoiceField({ label, value, choices, width = 104, onChoose }: Props) {
  return (
    <Box
      title={choices.find(([key]) => key === value)?.[1]}
      sx={{
        // A ledge with room to spare has wider ones, for names that are longer still.
        width: typeof width === "number" ? `calc(${width * STRETCH}px * var(--choices-wider, 1))` : width,
        minWidth: 0,
      }}
    >
      <Box sx={{ fontSize: 11, lineHeight: "15px", color: "text.secondary" }}>{label}</Box>
      <Select
        size="small"
        fullWidth
        displayEmpty
        value={value}
        inputProps={{ "aria-label": label }}
        MenuProps={{ transitionDuration: 0, slotProps: { paper: { sx: { maxHeight: 360 } } } }}
        onChange={(event) => onChoose(event.target.value)}
      >
        {choices.map(([key, name]) => (
          <MenuItem key={key} value={key} dense>
            {name}
          </MenuItem>
        ))}
      </Select>
    </Box>
  );
}
