/** How many pixels of the screen one of the page has, which changes with the zoom and with the screen. */
import { useSyncExternalStore } from "react";

const ratio = () => window.devicePixelRatio || 1;

/** A query tells only that it holds no more: each change is waited for by a new one. */
function watch(answer: () => void): () => void {
  let query = matchMedia(`(resolution: ${ratio()}dppx)`);
  const change = () => {
    query.removeEventListener("change", change);
    query = matchMedia(`(resolution: ${ratio()}dppx)`);
    query.addEventListener("change", change);
    answer();
  };
  query.addEventListener("change", change);
  return () => query.removeEventListener("change", change);
}

export const usePixelRatio = () => useSyncExternalStore(watch, ratio);
