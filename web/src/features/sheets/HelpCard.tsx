/** The help card: what the keys do. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { TitledDialog } from "../../components/TitledDialog";
import { KEYS } from "./keys";
import { t } from "../../words/words";

export function HelpCard({ onClose }: { onClose: () => void }) {
  return (
    <TitledDialog
      title={t("Shortcuts")}
      onClose={onClose}
      foot={
        <Button variant="outlined" onClick={onClose}>
          {t("Close")}
        </Button>
      }
    >
      <Box
        component="dl"
        sx={{
          m: 0,
          display: "grid",
          gridTemplateColumns: "auto 1fr",
          columnGap: 3,
          rowGap: 0.75,
          fontSize: 13,
        }}
      >
        {KEYS.map(([key, what]) => (
          <Box key={key} sx={{ display: "contents" }}>
            <Box component="dt" sx={{ fontWeight: 600, whiteSpace: "nowrap" }}>
              {key}
            </Box>
            <Box component="dd" sx={{ m: 0 }}>
              {what}
            </Box>
          </Box>
        ))}
      </Box>
      <Box component="p" sx={{ fontSize: 13, color: "text.secondary", m: 0 }}>
        {t(
          "The wheel zooms the board, and never a drawing. Drag the empty table to move the board; " +
            "drag a viewport's edges to crop it. Its scale changes only when a scale is chosen.",
        )}
      </Box>
    </TitledDialog>
  );
}
