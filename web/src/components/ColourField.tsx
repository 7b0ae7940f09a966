/** A colour under a small label: the swatch opens the system's own choice of colours. */
import Box from "@mui/material/Box";
import { useState } from "react";
import { colours } from "../theme/theme";

interface Props {
  label: string;
  value: string;
  disabled?: boolean;
  onChange: (colour: string) => void;
}

/** Written once the choice is made, and not for every colour that it passes over. */
export function ColourField({ label, value, disabled = false, onChange }: Props) {
  const [passing, setPassing] = useState<string | null>(null);
  const now = passing ?? value;
  const made = (input: HTMLInputElement | null) => {
    // React's own event comes with every colour that is passed over; the browser's with the one that is
    // chosen.
    if (input)
      input.onchange = () => {
        setPassing(null);
        if (input.value !== value) onChange(input.value);
      };
  };
  return (
    <Box
      component="input"
      ref={made}
      type="color"
      aria-label={label}
      title={`${label}: ${now}`}
      disabled={disabled}
      value={now}
      onChange={(event) => setPassing(event.target.value)}
      sx={{
        width: 34,
        height: 26,
        p: "3px",
        border: `1px solid ${colours.sandDeep}`,
        borderRadius: "3px",
        bgcolor: colours.paper,
        cursor: disabled ? "default" : "pointer",
        "&::-webkit-color-swatch-wrapper": { p: 0 },
        "&::-webkit-color-swatch": { border: 0, borderRadius: "2px" },
        "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: 2 },
      }}
    />
  );
}
