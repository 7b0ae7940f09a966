/** For another project, or another session. */
import { annotate } from "./annotating";
import { useBoard } from "./board";
import { useClipboard } from "./clipboard";
import { NO_GESTURE, useGesture } from "./gesture";
import { select } from "./selection";

/** Nothing selected, nothing dragged, no template being edited. */
export function resetBoard() {
  select(null);
  useGesture.setState(NO_GESTURE);
  annotate(null);
  useBoard.setState({ template: null });
}

export function clearClipboard() {
  useClipboard.setState({ viewports: [], pieces: [] });
}
