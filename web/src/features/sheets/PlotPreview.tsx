/** The pages of the very PDF that was made, looked at before it is taken away. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import type { Plot } from "../../api/client";
import { usePdf } from "../../components/pdf";
import { PdfPages } from "../../components/PdfPages";
import { PlotNotes } from "../../components/PlotNotes";
import { PlotProgress } from "../../components/PlotProgress";
import { t } from "../../words/words";

interface Props {
  plot: Plot;
  onClose: () => void;
}

export function PlotPreview({ plot, onClose }: Props) {
  const { job } = plot;
  const done = job.state === "done";
  const address = `/api/plots/${plot.id}/file/`;
  const { pdf, problem } = usePdf(done ? address : null);
  return (
    <Dialog
      open
      onClose={onClose}
      maxWidth={false}
      transitionDuration={0}
      slotProps={{
        paper: {
          "aria-label": t("Preview of {about}", { about: job.about }),
          sx: { width: "min(1120px, 92vw)", height: "92vh" },
        },
      }}
    >
      <Box
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1.5,
          px: 2,
          py: 1.25,
          borderBottom: 1,
          borderColor: "divider",
        }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: 650, flex: 1 }}>
          {t("Preview of")} {job.about}
          {pdf && (
            <Box component="span" sx={{ fontWeight: 400, color: "text.secondary", fontSize: 13, ml: 1 }}>
              {t("{numPages} {which}, PDF", {
                numPages: pdf.numPages,
                which: pdf.numPages === 1 ? t("page") : t("pages"),
              })}
            </Box>
          )}
        </Box>
        {done && (
          <Button variant="contained" component="a" href={address} download>
            {t("Download PDF")}
          </Button>
        )}
        <Button variant="outlined" onClick={onClose}>
          {t("Close")}
        </Button>
      </Box>
      <PlotProgress job={job} problem={problem} />
      {done && <PlotNotes notes={plot.notes} />}
      {pdf && <PdfPages pdf={pdf} pages={plot.pages} />}
    </Dialog>
  );
}
