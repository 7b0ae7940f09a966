/** A field that is written when it is left or Enter is pressed, and put back with Escape. */
import Box from "@mui/material/Box";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";

interface Props {
  label: string;
  value: string;
  width?: number | string;
  unit?: string;
  number?: boolean;
  /** Without a label above it, in a row of a table. */
  bare?: boolean;
  disabled?: boolean;
  placeholder?: string;
  onCommit: (value: string) => void;
}

export function FigureField({
  label,
  value,
  width = 74,
  unit,
  number = false,
  bare = false,
  disabled = false,
  placeholder,
  onCommit,
}: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? value;
  const commit = () => {
    const wanted = number ? typed?.trim().replace(",", ".") : typed?.trim();
    setTyped(null);
    if (
      wanted === undefined ||
      wanted === value ||
      (number && (wanted === "" || !Number.isFinite(Number(wanted))))
    )
      return;
    onCommit(wanted);
  };
  return (
    <Box
      component="label"
      sx={{
        display: "block",
        width,
        // At least as wide as its label, which would lie over the next one.
        ...(typeof width === "number" ? { minWidth: "min-content", flexShrink: 0 } : { minWidth: 0 }),
      }}
    >
      {!bare && (
        <Box
          component="span"
          sx={{
            display: "block",
            fontSize: 11,
            lineHeight: "15px",
            color: "text.secondary",
            whiteSpace: "nowrap",
          }}
        >
          {label}
          {unit && ` (${unit})`}
        </Box>
      )}
      <OutlinedInput
        size="small"
        fullWidth
        value={shown}
        disabled={disabled}
        placeholder={placeholder}
        inputProps={{ "aria-label": label, inputMode: number ? "decimal" : undefined, spellCheck: !number }}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          // Written or put back, the keys belong to the sheet again.
          const input = event.target as HTMLInputElement;
          const among = input.closest("[role=dialog]") !== null;
          if (event.key === "Enter") {
            if (among) commit();
            else input.blur();
          }
          // In a dialog the second Escape is the dialog's own.
          if (event.key === "Escape" && !(among && typed === null)) {
            event.stopPropagation();
            if (typed === null) input.blur();
            setTyped(null);
          }
        }}
        sx={{ "& input": { fontVariantNumeric: "tabular-nums" } }}
      />
    </Box>
  );
}
