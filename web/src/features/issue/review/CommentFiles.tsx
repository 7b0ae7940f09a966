/** Comments in files: a commented PDF is dropped in, and what was said goes out. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, csrfToken, data, errorOf, type CommentFile } from "../../../api/client";
import { isActive } from "../../../api/jobs";
import { queryClient } from "../../../api/queryClient";
import { PlotProgress } from "../../../components/PlotProgress";
import { notifyError } from "../../../stores/notices";
import { colours } from "../../../theme/theme";
import { t } from "../../../words/words";

const useCommentFile = (id: string | null) =>
  useQuery({
    queryKey: ["comment-file", id],
    queryFn: () => data(api.GET("/api/comment-files/{job}/", { params: { path: { job: id ?? "" } } })),
    enabled: id !== null,
    refetchInterval: (query) => (!query.state.data || isActive(query.state.data.job) ? 300 : false),
  });

export function CommentFiles({ project }: { project: string }) {
  const chooser = useRef<HTMLInputElement>(null);
  const [reading, setReading] = useState<string | null>(null);
  const [over, setOver] = useState(false);
  const { data: file } = useCommentFile(reading);
  const done = file && !isActive(file.job);
  useEffect(() => {
    if (done)
      for (const key of ["comments", "checks"])
        void queryClient.invalidateQueries({ queryKey: [key, project] });
  }, [done, project]);
  const send = async (chosen: File | undefined) => {
    if (!chosen) return;
    const body = new FormData();
    body.set("project", project);
    body.set("file", chosen);
    try {
      const headers = { "X-CSRFToken": csrfToken() };
      const response = await fetch("/api/comment-files/", { method: "POST", body, headers });
      if (!response.ok) throw await errorOf(response);
      setReading(((await response.json()) as CommentFile).id);
    } catch (error) {
      notifyError(error);
    }
  };
  const summary = (form: string) => `/api/comment-summary/?project=${project}&form=${form}`;
  return (
    <Box
      role="group"
      aria-label={t("Comments in files")}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void send(event.dataTransfer.files[0]);
      }}
      sx={{
        p: 1.25,
        display: "flex",
        flexDirection: "column",
        gap: 0.75,
        fontSize: 12.5,
        borderTop: `1px solid ${colours.sandDeep}`,
        bgcolor: over ? colours.rustPale : "transparent",
      }}
    >
      <Box sx={{ color: "text.secondary" }}>
        {t("A PDF that was sent, and commented in any reader, or a BCF file: drop it here.")}
      </Box>
      <input
        ref={chooser}
        type="file"
        accept=".pdf,.bcf,.bcfzip"
        hidden
        aria-label={t("File with comments")}
        onChange={(event) => {
          void send(event.target.files?.[0]);
          event.target.value = "";
        }}
      />
      <Button variant="outlined" onClick={() => chooser.current?.click()}>
        {t("Read comments from a file…")}
      </Button>
      {file && !done && <PlotProgress job={file.job} problem="" cancelled="" />}
      {done && (
        <Alert severity={file.job.state === "done" ? "success" : "error"} onClose={() => setReading(null)}>
          {file.job.state === "done"
            ? [`${file.name}: ${countWord(file.made, file.known)}`, ...file.notes].join(" ")
            : `${file.name}: ${file.job.message || t("It was cancelled.")}`}
        </Alert>
      )}
      <Box sx={{ display: "flex", gap: 0.5, flexWrap: "wrap" }}>
        {(["pdf", "xlsx"] as const).map((form) => (
          <Button key={form} variant="outlined" href={summary(form)} download sx={{ flex: 1, minWidth: 0 }}>
            {form.toUpperCase()}
          </Button>
        ))}
        <Button
          variant="outlined"
          href={`/api/comment-bcf/?project=${project}`}
          download
          sx={{ flex: 1, minWidth: 0 }}
        >
          {t("BCF")}
        </Button>
      </Box>
    </Box>
  );
}

const countWord = (made: number, known: number) =>
  (made === 1 ? t("1 new comment") : t("{made} new comments", { made })) +
  `${known ? t(", {known} known already", { known }) : ""}.`;
