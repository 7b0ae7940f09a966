/**
 * What others do in a project, as the server tells it (server-sent events); and where one is, told to them. A
 * page that nobody looks at does not listen, and looks at everything again when somebody does.
 */
import { TAB, api, data, type Job, type Person } from "../api/client";
import { setTold } from "../api/pace";
import { isActive } from "../api/jobs";
import { queryClient } from "../api/queryClient";
import { usePresent } from "../stores/present";
import { receive, type Kind } from "./rows";
import { staleBy } from "./topics";

/** A break as short as this is not worth a word; after a refusal it is tried again so much later; ms. */
const [SAY_AFTER, AGAIN_AFTER, HIDDEN_AFTER] = [1_000, 10_000, 30_000] as const;
/** What goes stale within so long is fetched again once; milliseconds. */
const GATHER = 400;
/** Where one is is told at most so often; milliseconds. */
const TELL_AFTER = 250;

type Row = Record<string, unknown> | null;

export interface Whereabouts {
  station: string;
  subject: string;
  holding: readonly string[];
}

/** Listen to a project until what is returned is called. */
export function listen(project: string): () => void {
  let source: EventSource | null = null;
  let again = 0;
  let hidden = 0;
  let missed = false;
  let awayTimer = 0;

  const waiting = new Set<string>();
  let later = 0;
  const fetchAgain = () => {
    later = 0;
    const stale = new Set(waiting);
    waiting.clear();
    void queryClient.invalidateQueries({ predicate: ({ queryKey }) => stale.has(String(queryKey[0])) });
  };

  const away = (after: number) => {
    window.clearTimeout(awayTimer);
    awayTimer = window.setTimeout(() => usePresent.setState({ away: true }), after);
  };
  const back = () => {
    window.clearTimeout(awayTimer);
    usePresent.setState({ away: false });
  };
  const listening = (to: boolean) => {
    setTold(to);
    usePresent.setState(to ? { listening: true } : { listening: false, others: [] });
  };
  const close = () => {
    window.clearTimeout(again);
    window.clearTimeout(awayTimer);
    source?.close();
    source = null;
    listening(false);
  };
  const open = () => {
    if (source) return;
    const mine = new EventSource(`/api/events/?project=${project}&tab=${TAB}`);
    source = mine;
    mine.onopen = () => {
      back();
      listening(true);
      told = "";
      tell(project);
      // Whatever happened while nobody listened.
      if (missed) void queryClient.invalidateQueries();
      missed = true;
    };
    mine.onerror = () => {
      listening(false);
      away(SAY_AFTER);
      if (mine.readyState !== EventSource.CLOSED) return;
      // Refused, not broken: it does not try again by itself.
      source = null;
      again = window.setTimeout(open, AGAIN_AFTER);
    };
    mine.addEventListener("changed", (event: MessageEvent<string>) => {
      const { topics } = JSON.parse(event.data) as { topics: string[] };
      for (const topic of staleBy(topics)) waiting.add(topic);
      later ||= window.setTimeout(fetchAgain, GATHER);
    });
    mine.addEventListener("rows", (event: MessageEvent<string>) => {
      const told = JSON.parse(event.data) as { rows: { topic: Kind | "jobs"; id: string; row: Row }[] };
      for (const { topic, id, row } of told.rows)
        if (topic === "jobs") receiveJob(project, row as unknown as Job);
        else receive(project, topic, id, row);
    });
    mine.addEventListener("people", (event: MessageEvent<string>) => {
      usePresent.setState({ others: (JSON.parse(event.data) as { others: Person[] }).others });
    });
    mine.addEventListener("full", () => {
      close();
      again = window.setTimeout(open, AGAIN_AFTER);
    });
  };
  const look = () => {
    window.clearTimeout(hidden);
    if (document.visibilityState === "visible") open();
    else hidden = window.setTimeout(close, HIDDEN_AFTER);
  };
  const offline = () => away(0);

  document.addEventListener("visibilitychange", look);
  window.addEventListener("offline", offline);
  window.addEventListener("online", back);
  look();
  return () => {
    document.removeEventListener("visibilitychange", look);
    window.removeEventListener("offline", offline);
    window.removeEventListener("online", back);
    window.clearTimeout(hidden);
    window.clearTimeout(later);
    close();
    back();
  };
}

/** How a job is now; what it has made is fetched by those who watch for its end. */
function receiveJob(project: string, job: Job) {
  queryClient.setQueryData<Job[]>(["jobs", project], (old = []) =>
    old.some((j) => j.id === job.id) ? old.map((j) => (j.id === job.id ? job : j)) : [job, ...old],
  );
  const made = { check: "checks", read: "size-questions", issue: "issues" }[job.kind as string];
  if (made && !isActive(job)) void queryClient.invalidateQueries({ queryKey: [made, project] });
}

let place: Whereabouts = { station: "", subject: "", holding: [] };
let told = "";
let timer = 0;

/** Say where one is, shortly after it is known. */
export function beAt(project: string, now: Whereabouts) {
  place = now;
  window.clearTimeout(timer);
  timer = window.setTimeout(() => tell(project), TELL_AFTER);
}

function tell(project: string) {
  const said = JSON.stringify(place);
  if (said === told || !usePresent.getState().listening) return;
  told = said;
  const body = { project, tab: TAB, ...place, holding: [...place.holding] };
  data(api.POST("/api/places/", { body })).catch(() => {
    told = ""; // it is told again with the next move, or when the connection is back
  });
}
