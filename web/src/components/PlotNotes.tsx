/** What is to be looked at before a plot leaves the office. */
import Alert from "@mui/material/Alert";
import { t } from "../words/words";
import { said } from "../words/said";

export function PlotNotes({ notes }: { notes: readonly string[] }) {
  if (!notes.length) return null;
  return (
    <Alert
      severity="warning"
      aria-label={t("Before it leaves")}
      sx={{
        mx: 2,
        my: 1.25,
        py: 0.25,
        maxHeight: 104,
        overflowY: "auto",
        flexShrink: 0,
        "& .MuiAlert-message": { fontSize: 12.5, lineHeight: 1.4, py: 0.75 },
      }}
    >
      {notes.map((note) => (
        <div key={note}>{said(note)}</div>
      ))}
    </Alert>
  );
}
