/** Bringing a drawing from others in: sent, looked at in the background, and handed on when it is there. */
import { useEffect, useRef, useState } from "react";
import { api, csrfToken, data, errorOf, type Job, type ReceivedFile } from "../../api/client";
import { useJobs } from "../../api/jobs";
import { queryClient } from "../../api/queryClient";
import { notify, notifyError } from "../../stores/notices";
import { t } from "../../words/words";

const NOTHING: never[] = [];

/** Start to bring a file in; `onReady` gets it once. */
export function useReceive(project: string, onReady: (file: ReceivedFile) => void) {
  const { data: jobs = NOTHING } = useJobs(project);
  const [waiting, setWaiting] = useState<string | null>(null);
  const ready = useRef(onReady);
  useEffect(() => void (ready.current = onReady));
  const job = jobs.find((j) => j.id === waiting);
  const state = job?.state;
  const active = !state || state === "waiting" || state === "running";
  const told = useRef("");
  useEffect(() => {
    if (!waiting || active || told.current === waiting) return;
    told.current = waiting;
    if (state === "failed") return notify(job?.message || t("The file could not be read."), true);
    if (state !== "done") return;
    data(api.GET("/api/received-files/", { params: { query: { project } } }))
      .then((files) => {
        queryClient.setQueryData(["received-files", project], files);
        const made = (files as ReceivedFile[]).find((file) => file.job === waiting);
        if (made) ready.current(made);
      })
      .catch(notifyError);
  }, [waiting, active, state, project, job?.message]);

  async function send(file: File) {
    const body = new FormData();
    body.set("project", project);
    body.set("upload", file);
    try {
      const headers = { "X-CSRFToken": csrfToken() };
      const response = await fetch("/api/received-files/", { method: "POST", body, headers });
      if (!response.ok) throw await errorOf(response);
      setWaiting(((await response.json()) as Job).id);
      void queryClient.invalidateQueries({ queryKey: ["jobs", project] });
    } catch (error) {
      notifyError(error);
    }
  }
  return { send, busy: waiting !== null && active };
}
