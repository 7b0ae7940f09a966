/** Before a view goes: on which sheets it stands. */
import Button from "@mui/material/Button";
import type { View } from "../../api/client";
import { usePlacedOn } from "../../api/sheets";
import { TitledDialog } from "../../components/TitledDialog";
import { t } from "../../words/words";

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
      title={t("Delete “{name}”?", { name: view.name })}
      text={
        on.length
          ? t("It is placed on {sheets}; its viewports there go with it. This can be undone.", {
              sheets: on.join(", "),
            })
          : t("It is placed nowhere. This can be undone.")
      }
      width="xs"
      onClose={onCancel}
      foot={
        <>
          <Button onClick={onCancel}>{t("Cancel")}</Button>
          <Button variant="contained" onClick={onDelete} autoFocus>
            {t("Delete view")}
          </Button>
        </>
      }
    />
  );
}
