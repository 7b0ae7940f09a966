/** The pages of the very PDF that was made, looked at before it is taken away. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import LinearProgress from "@mui/material/LinearProgress";
import * as pdfjs from "pdfjs-dist";
import workerUrl from "pdfjs-dist/build/pdf.worker.min.mjs?url";
import { useEffect, useRef, useState } from "react";
import { api, data, errorOf, type Job } from "../../api/client";
import { isUnderWay } from "../../api/queries";
import { colours } from "../../theme/theme";

pdfjs.GlobalWorkerOptions.workerSrc = workerUrl;

interface Props {
  job: Job;
  onClose: () => void;
}

export function PlotPreview({ job, onClose }: Props) {
  const [pdf, setPdf] = useState<pdfjs.PDFDocumentProxy | null>(null);
  const [problem, setProblem] = useState("");
  const address = `/api/jobs/${job.id}/file/`;
  const done = job.state === "done";

  useEffect(() => {
    if (!done) return;
    let gone = false;
    const load = async () => {
      const response = await fetch(address);
      if (!response.ok) throw await errorOf(response);
      const made = await pdfjs.getDocument({ data: await response.arrayBuffer() }).promise;
      if (gone) void made.destroy();
      else setPdf(made);
    };
    load().catch((error: unknown) => setProblem(error instanceof Error ? error.message : String(error)));
    return () => {
      gone = true;
    };
  }, [address, done]);

  const failed = problem || (job.state === "failed" ? job.message : job.state === "cancelled" ? "The plot was cancelled." : "");
  return (
    <Dialog open onClose={onClose} maxWidth={false} slotProps={{ paper: { sx: { width: "min(1120px, 92vw)", height: "92vh" } } }}>
      <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, px: 2, py: 1.25, borderBottom: 1, borderColor: "divider" }}>
        <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: 650, flex: 1 }}>
          Preview of {job.about}
          {pdf && (
            <Box component="span" sx={{ fontWeight: 400, color: "text.secondary", fontSize: 13, ml: 1 }}>
              {pdf.numPages} {pdf.numPages === 1 ? "page" : "pages"}, PDF
            </Box>
          )}
        </Box>
        {isUnderWay(job) && (
          <Button onClick={() => void data(api.POST("/api/jobs/{id}/cancel/", { params: { path: { id: job.id } } }))}>Cancel</Button>
        )}
        {done && (
          <Button variant="contained" component="a" href={address} download>
            Download PDF
          </Button>
        )}
        <Button variant="outlined" onClick={onClose}>
          Close
        </Button>
      </Box>
      {isUnderWay(job) && (
        <Box role="status" sx={{ p: 2 }}>
          <Box sx={{ fontSize: 13, mb: 1 }}>{job.stage || "Waiting for its turn"}</Box>
          <LinearProgress variant={job.share ? "determinate" : "indeterminate"} value={job.share * 100} />
        </Box>
      )}
      {failed && (
        <Alert severity="error" sx={{ m: 2 }}>
          {failed}
        </Alert>
      )}
      {done && job.notes.length > 0 && (
        <Alert severity="warning" sx={{ mx: 2, mt: 1.5, maxHeight: 110, overflowY: "auto" }}>
          {job.notes.map((note) => (
            <div key={note}>{note}</div>
          ))}
        </Alert>
      )}
      <Box sx={{ flex: 1, overflow: "auto", bgcolor: colours.sand, p: 2.5 }}>
        {pdf && Array.from({ length: pdf.numPages }, (_, k) => <Page key={k} pdf={pdf} number={k + 1} />)}
      </Box>
    </Dialog>
  );
}

function Page({ pdf, number }: { pdf: pdfjs.PDFDocumentProxy; number: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    let task: pdfjs.RenderTask | null = null;
    let gone = false;
    void pdf.getPage(number).then((page) => {
      const target = canvas.current;
      if (gone || !target) return;
      const room = (target.parentElement?.clientWidth ?? 1000) * (window.devicePixelRatio || 1);
      const viewport = page.getViewport({ scale: room / page.getViewport({ scale: 1 }).width });
      target.width = viewport.width;
      target.height = viewport.height;
      task = page.render({ canvas: target, viewport });
      task.promise.then(
        () => (target.dataset.painted = "yes"),
        () => undefined, // taken off the screen before it was finished
      );
    });
    return () => {
      gone = true;
      task?.cancel();
    };
  }, [pdf, number]);
  return (
    <Box sx={{ mb: 2.5, boxShadow: "0 3px 14px rgba(74, 60, 34, 0.28)", bgcolor: colours.paper }}>
      <canvas ref={canvas} style={{ width: "100%", display: "block" }} role="img" aria-label={`Page ${number}`} />
    </Box>
  );
}
