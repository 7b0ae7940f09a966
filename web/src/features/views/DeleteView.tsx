/** Before a view goes: on which sheets it stands. */
import Button from "@mui/material/Button";
import type { View } from "../../api/client";
import { usePlacedOn } from "../../api/sheets";
import { TitledDialog } from "../../components/TitledDialog";

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
    <TitledDialog
      title={`Delete “${view.name}”?`}
      text={
        on.length
          ? `It is placed on ${on.join(", ")}; its viewports there go with it. This can be undone.`
          : "It is placed nowhere. This can be undone."
      }
      width="xs"
      onClose={onCancel}
      foot={
        <>
          <Button onClick={onCancel}>Cancel</Button>
          <Button variant="contained" onClick={onDelete} autoFocus>
            Delete view
          </Button>
        </>
      }
    />
  );
}
