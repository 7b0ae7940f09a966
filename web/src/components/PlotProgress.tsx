/** How far a plot is, with the way to stop it; or why it came to nothing. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { api, data, type Job } from "../api/client";
import { isActive } from "../api/jobs";
import { t } from "../words/words";
import { said } from "../words/said";

interface Props {
  job: Job;
  problem: string;
  /** What is said of one that was cancelled. */
  cancelled?: string;
}

export function PlotProgress({ job, problem, cancelled = t("The plot was cancelled.") }: Props) {
  const failed =
    problem || (job.state === "failed" ? said(job.message) : job.state === "cancelled" ? cancelled : "");
  if (failed)
    return (
      <Alert severity="error" sx={{ m: 2 }}>
        {failed}
      </Alert>
    );
  if (!isActive(job)) return null;
  return (
    <Box role="status" sx={{ p: 2, display: "flex", alignItems: "center", gap: 2 }}>
      <Box sx={{ flex: 1 }}>
        <Box sx={{ fontSize: 13, mb: 1 }}>{said(job.stage) || t("Waiting for its turn")}</Box>
        <LinearProgress variant={job.share ? "determinate" : "indeterminate"} value={job.share * 100} />
      </Box>
      <Button
        variant="outlined"
        onClick={() => void data(api.POST("/api/jobs/{id}/cancel/", { params: { path: { id: job.id } } }))}
      >
        {t("Cancel")}
      </Button>
    </Box>
  );
}
