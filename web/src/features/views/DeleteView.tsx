/** Before a view goes: on which sheets it stands. */
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import type { View } from "../../api/client";
import { usePlacedOn } from "../../api/queries";

export function DeleteView({
  view,
  onCancel,
  onDelete,
}: {
  view: View;
  onCancel: () => void;
  onDelete: () => void;
}) {
  const on = usePlacedOn(view.project)(view.id);
  return (
    <Dialog open onClose={onCancel} transitionDuration={0} maxWidth="xs">
      <DialogTitle sx={{ fontSize: 16, fontWeight: 650 }}>Delete “{view.name}”?</DialogTitle>
      <DialogContent sx={{ fontSize: 13.5 }}>
        {on.length
          ? `It is placed on ${on.join(", ")}; its viewports there go with it. This can be undone.`
          : "It is placed nowhere. This can be undone."}
      </DialogContent>
      <DialogActions>
        <Button onClick={onCancel}>Cancel</Button>
        <Button variant="contained" onClick={onDelete} autoFocus>
          Delete view
        </Button>
      </DialogActions>
    </Dialog>
  );
}
