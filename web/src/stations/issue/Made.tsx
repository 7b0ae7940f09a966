/** What was made: the pages of a PDF, or another file to take away; with what is to be looked at before it leaves. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Job } from "../../api/client";
import { usePdf } from "../../parts/pdf";
import { PdfPages } from "../../parts/PdfPages";
import { PlotNotes } from "../../parts/PlotNotes";
import { PlotUnderWay } from "../../parts/PlotUnderWay";
import { colours } from "../../theme/theme";

interface Props {
  job: Job;
  /** Whether sheets or settings have changed since. */
  stale: boolean;
  onAgain: () => void;
}

export function Made({ job, stale, onAgain }: Props) {
  const done = job.state === "done";
  const address = `/api/jobs/${job.id}/file/`;
  const form = job.file_name.split(".").at(-1) ?? "";
  const { pdf, problem } = usePdf(done && form === "pdf" ? address : null);
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1, px: 2, py: 1, minHeight: 48, bgcolor: "background.default", borderBottom: `1px solid ${colours.sandDeep}` }}>
        <Box sx={{ flex: 1, minWidth: 0 }}>
          <Box component="h2" sx={{ m: 0, fontSize: 13.5, fontWeight: 650, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
            {done ? job.file_name : `Plotting ${job.about}`}
          </Box>
          {done && (
            <Box sx={{ fontSize: 11.5, color: "text.secondary" }}>
              {job.pages.length} {job.pages.length === 1 ? "page" : "pages"}
              {job.notes.length > 0 && `, ${job.notes.length} to look at`}
            </Box>
          )}
        </Box>
        {stale && (
          <>
            <Box role="status" sx={{ fontSize: 12, fontWeight: 600, color: colours.rust }}>
              Sheets or settings have changed since
            </Box>
            <Button variant="outlined" onClick={onAgain}>
              Preview again
            </Button>
          </>
        )}
        {done && (
          <Button variant={stale ? "outlined" : "contained"} component="a" href={address} download>
            Download {form.toUpperCase()}
          </Button>
        )}
      </Box>
      <PlotUnderWay job={job} problem={problem} />
      {done && <PlotNotes notes={job.notes} />}
      {pdf && <PdfPages pdf={pdf} pages={job.pages} />}
      {done && form !== "pdf" && <Box sx={{ flex: 1, display: "flex", alignItems: "center", justifyContent: "center", color: "text.secondary" }}>The file is ready to be taken away. A PDF can also be looked at here.</Box>}
    </>
  );
}
