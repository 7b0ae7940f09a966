import { useCallback, useLayoutEffect, useRef } from "react";

/**
 * A function that is one and the same from render to render, and does what it was given last: what it is
 * handed to is not rendered again for it. It is for events, and not to be called while rendering.
 */
export function useStable<A extends unknown[], R>(now: (...given: A) => R): (...given: A) => R {
  const latest = useRef(now);
  useLayoutEffect(() => {
    latest.current = now;
  });
  return useCallback((...given: A) => latest.current(...given), []);
}
