/**
 * A choice among many that can also be typed, under a small label; written when chosen, or left after typing.
 */
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useRef, useState, type KeyboardEvent } from "react";

interface Props {
  label: string;
  value: string;
  choices: readonly { value: string; group?: string }[];
  width?: number | string;
  onChoose: (value: string) => void;
}

export function ComboField({ label, value, choices, width = 116, onChoose }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const [typed, setTyped] = useState<string | null>(null);
  // The field is left in the same moment in which it is written: what was typed is written once.
  const latest = useRef<string | null>(null);
  const type = (text: string | null) => {
    latest.current = text;
    setTyped(text);
  };
  const leave = () => box.current?.querySelector("input")?.blur();
  const commit = (text: string | null) => {
    type(null);
    const wanted = text?.trim();
    if (wanted && wanted !== value) onChoose(wanted);
  };
  const press = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    if (typed === null) leave();
    type(null);
  };
  return (
    <Box ref={box} onKeyDown={press} sx={{ width, minWidth: 0 }}>
      <Box sx={{ fontSize: 11, lineHeight: "15px", color: "text.secondary" }}>{label}</Box>
      <Autocomplete
        freeSolo
        disableClearable
        forcePopupIcon
        size="small"
        options={[...choices]}
        // All choices stay to be seen, whatever is typed: a ladder is climbed, not searched.
        filterOptions={(options) => options}
        isOptionEqualToValue={(option, now) => option.value === (now as unknown)}
        getOptionLabel={(option) => (typeof option === "string" ? option : option.value)}
        groupBy={choices.some((c) => c.group) ? (option) => option.group ?? "" : undefined}
        value={value}
        inputValue={typed ?? value}
        onInputChange={(_, text, why) => why === "input" && type(text)}
        onChange={(_, chosen) => {
          commit(typeof chosen === "string" ? chosen : chosen.value);
          leave(); // the keys belong to the sheet again
        }}
        onBlur={() => commit(latest.current)}
        slotProps={{
          listbox: {
            sx: {
              fontSize: 13,
              "& .MuiAutocomplete-option": { minHeight: 28, py: 0.25 },
              "& .MuiAutocomplete-groupLabel": {
                lineHeight: "26px",
                fontSize: 11.5,
                bgcolor: "background.default",
              },
            },
          },
          popper: { placement: "top-start", sx: { minWidth: 150 } },
        }}
        renderInput={(params) => (
          <TextField
            {...params}
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps.htmlInput, "aria-label": label },
            }}
          />
        )}
        sx={{
          "& .MuiOutlinedInput-root.MuiInputBase-sizeSmall": { height: 30, py: 0, pl: 0.25, pr: "26px" },
          "& .MuiAutocomplete-endAdornment": { right: "2px !important" },
        }}
      />
    </Box>
  );
}
