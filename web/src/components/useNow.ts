/** What time it is, to the minute, for what is shown differently when a day or a term is over. */
import { useSyncExternalStore } from "react";

const MINUTE = 60_000;
/** How late a new minute may be told; milliseconds. */
const LATE = 10_000;

function watch(answer: () => void): () => void {
  const timer = window.setInterval(answer, LATE);
  return () => window.clearInterval(timer);
}
const minute = () => Math.floor(Date.now() / MINUTE);

export const useNow = () => new Date(useSyncExternalStore(watch, minute) * MINUTE);
