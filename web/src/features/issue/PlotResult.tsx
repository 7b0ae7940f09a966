/**
 * What was made: the pages of a PDF, or another file to take away; with what is to be looked at before it
 * leaves.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Plot } from "../../api/client";
import { usePdf } from "../../components/pdf";
import { PdfPages } from "../../components/PdfPages";
import { PlotNotes } from "../../components/PlotNotes";
import { PlotProgress } from "../../components/PlotProgress";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

interface Props {
  plot: Plot;
  /** Whether sheets or settings have changed since. */
  stale: boolean;
  onAgain: () => void;
}

export function PlotResult({ plot, stale, onAgain }: Props) {
  const { job } = plot;
  const done = job.state === "done";
  const address = `/api/plots/${plot.id}/file/`;
  const form = plot.file_name.split(".").at(-1) ?? "";
  const { pdf, problem } = usePdf(done && form === "pdf" ? address : null);
  return (
    <>
      <Box
        sx={{
          display: "flex",
          alignItems: "center",
          gap: 1,
          px: 2,
          py: 1,
          minHeight: 48,
          bgcolor: "background.default",
          borderBottom: `1px solid ${colours.sandDeep}`,
        }}
      >
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box
            component="h2"
            sx={{
              m: 0,
              fontSize: 13.5,
              fontWeight: 650,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {done ? plot.file_name : t("Plotting {about}", { about: job.about })}
          </Box>
          {done && (
            <Box sx={{ fontSize: 11.5, color: "text.secondary" }}>
              {plot.pages.length === 1 ? t("1 page") : t("{count} pages", { count: plot.pages.length })}
              {plot.notes.length > 0 && `, ${countOfWarnings(plot.notes.length)}`}
            </Box>
          )}
        </Box>
        {stale && (
          <>
            <Box role="status" sx={{ fontSize: 12, fontWeight: 600, color: colours.rust }}>
              {t("Sheets or settings have changed since")}
            </Box>
            <Button variant="outlined" onClick={onAgain}>
              {t("Preview again")}
            </Button>
          </>
        )}
        {done && (
          <Button variant={stale ? "outlined" : "contained"} component="a" href={address} download>
            {t("Download {form}", { form: form.toUpperCase() })}
          </Button>
        )}
      </Box>
      <PlotProgress job={job} problem={problem} />
      {done && !stale && <PlotNotes notes={plot.notes} />}
      {pdf && <PdfPages pdf={pdf} pages={plot.pages} />}
      {done && form !== "pdf" && (
        <Box
          sx={{
            flex: 1,
            display: "flex",
            alignItems: "center",
            justifyContent: "center",
            color: "text.secondary",
          }}
        >
          {t("The file is ready to download. A PDF can also be previewed here.")}
        </Box>
      )}
    </>
  );
}

const countOfWarnings = (count: number) => (count === 1 ? t("1 warning") : t("{count} warnings", { count }));
