/** Asks for a name, in a dialog of one line. Open while there is one, blank at first; null closes it. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";

interface Props {
  label: string;
  /** What its button does. */
  action: string;
  name: string | null;
  onName: (name: string | null) => void;
  onDone: (name: string) => void;
}

export function NameDialog({ label, action, name, onName, onDone }: Props) {
  const whole = name?.trim() ?? "";
  return (
    <Dialog
      open={name !== null}
      onClose={() => onName(null)}
      transitionDuration={0}
      maxWidth="xs"
      fullWidth
      slotProps={{ paper: { "aria-label": action } }}
    >
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          if (whole) onDone(whole);
        }}
        sx={{ p: 2.5, display: "flex", gap: 1, alignItems: "center" }}
      >
        <TextField
          label={label}
          autoFocus
          fullWidth
          value={name ?? ""}
          onChange={(event) => onName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <Button type="submit" variant="contained" disabled={!whole}>
          {action}
        </Button>
      </Box>
    </Dialog>
  );
}
