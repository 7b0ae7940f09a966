/** Before a view goes: on which sheets it stands. */
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import type { View } from "../../api/client";

export function DeleteView({ view, onCancel, onDelete }: { view: View; onCancel: () => void; onDelete: () => void }) {
  const on = view.placed_on;
  return (
    <Dialog open onClose={onCancel} transitionDuration={0} maxWidth="xs">
      <DialogTitle sx={{ fontSize: 16, fontWeight: 650 }}>Delete “{view.name}”?</DialogTitle>
      <DialogContent sx={{ fontSize: 13.5 }}>
        {on.length
          ? `It stands on ${on.length === 1 ? "sheet" : "sheets"} ${on.join(", ")}; its viewports there go with it. It can be taken back.`
          : "It stands on no sheet. It can be taken back."}
      </DialogContent>
      <DialogActions>
        <Button onClick={onCancel}>Keep it</Button>
        <Button variant="contained" onClick={onDelete} autoFocus>
          Delete view
        </Button>
      </DialogActions>
    </Dialog>
  );
}
