/** Which value of an element is meant: one that all have, or an attribute or property of its file. */
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";

/** Values that every element has, as the core knows them. */
export const COMMON = [
  "Number",
  "Name",
  "Storey",
  "Class",
  "Layer",
  "Material",
  "Room",
  "Length",
  "Width",
  "Thickness",
  "Height",
  "Area",
] as const;

interface Props {
  label: string;
  value: string;
  sources: readonly string[];
  width?: number | string;
  onChoose: (source: string) => void;
}

export function ValueChoice({ label, value, sources, width = 210, onChoose }: Props) {
  return (
    <Box sx={{ width, minWidth: 0 }}>
      <Box sx={{ fontSize: 11, lineHeight: "15px", color: "text.secondary" }}>{label}</Box>
      <Autocomplete
        size="small"
        freeSolo
        disableClearable
        options={[...new Set([...COMMON, ...sources])]}
        value={value}
        onChange={(_, to) => to && onChoose(to)}
        slotProps={{
          popper: { placement: "bottom-start", style: { width: 320 } },
          listbox: { sx: { fontSize: 13, "& .MuiAutocomplete-option": { minHeight: 28, py: 0.25 } } },
        }}
        sx={{ "& .MuiOutlinedInput-root.MuiInputBase-sizeSmall": { height: 30, py: 0, pl: 0.25 } }}
        renderInput={(params) => (
          <TextField
            {...params}
            slotProps={{
              ...params.slotProps,
              htmlInput: { ...params.slotProps.htmlInput, "aria-label": label },
            }}
            onBlur={(event) => event.target.value.trim() && onChoose(event.target.value.trim())}
          />
        )}
      />
    </Box>
  );
}
