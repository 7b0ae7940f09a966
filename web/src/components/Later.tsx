/** What stands beside the drawing: it is there a moment after it, so that the drawing waits for nothing. */
import { useDeferredValue, type ReactNode } from "react";

/** Render the children when what is more urgent has been shown; until then what stands in for them. */
export function Later({ children, until = null }: { children: ReactNode; until?: ReactNode }) {
  return useDeferredValue(true, false) ? children : until;
}
