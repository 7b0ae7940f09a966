/** The board: the sheet on the table, drawn from its display list, with its viewports under the hand. */
import Box from "@mui/material/Box";
import { useCallback, useEffect, useMemo, useRef, useState, type PointerEvent, type ReactNode } from "react";
import type { DisplayList } from "../api/client";
import { useDesk } from "./desk";
import { fitted, zoomed, type Geometry, type Look } from "./geometry";
import type { Linework } from "./linework";
import { letteringReady, paint, type Scene } from "./paint";
import { paintTable } from "./rulers";
import { colours } from "../theme/theme";

/** Whoever wants all of the sheet on the board sends this event to the window. */
export const FIT = "dunefold:fit";

interface Props {
  /** Changes when another sheet comes to the board: it is then fitted anew. */
  sheet: string;
  display: DisplayList;
  linework: ReadonlyMap<string, Linework>;
  geometry: ReadonlyMap<string, Geometry>;
  children: (look: Look) => ReactNode;
}

export function Board({ sheet, display, linework, geometry, children }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [space, setSpace] = useState({ width: 0, height: 0 });
  const [lettering, setLettering] = useState(false);
  const look = useDesk((s) => s.look);
  const draft = useDesk((s) => s.draft);
  const { width, height } = display;

  useEffect(() => void letteringReady.then(() => setLettering(true)), []);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSpace({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  useEffect(() => {
    const fit = () => space.width && useDesk.setState({ look: fitted({ width, height }, space) });
    fit();
    window.addEventListener(FIT, fit);
    return () => window.removeEventListener(FIT, fit);
  }, [sheet, width, height, space]);

  // A wheel that zooms must keep the page from scrolling, which React's own listener cannot.
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const { left, top } = element.getBoundingClientRect();
      useDesk.setState((s) =>
        s.look
          ? { look: zoomed(s.look, Math.exp(-event.deltaY * 0.0016), event.clientX - left, event.clientY - top) }
          : {},
      );
    };
    element.addEventListener("wheel", turn, { passive: false });
    return () => element.removeEventListener("wheel", turn);
  }, []);

  const held = draft?.id ?? null;
  const scene: Scene = useMemo(() => ({ display, linework, geometry }), [display, linework, geometry]);
  const dpr = window.devicePixelRatio || 1;
  // All that the hand does not hold is painted once, and only shown again while something moves.
  const still = useMemo(() => {
    if (!look || !space.width || !lettering) return null;
    const layer = document.createElement("canvas");
    layer.width = space.width * dpr;
    layer.height = space.height * dpr;
    const context = layer.getContext("2d");
    if (!context) return null;
    context.setTransform(dpr, 0, 0, dpr, 0, 0);
    paintTable(context, { width, height }, look);
    paint(context, scene, look, dpr, { without: held });
    return layer;
  }, [look, space, lettering, scene, held, dpr, width, height]);

  useEffect(() => {
    const request = requestAnimationFrame(() => {
      const context = canvas.current?.getContext("2d");
      if (!context || !still || !look) return;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.drawImage(still, 0, 0);
      if (draft) {
        const now = { ...scene, geometry: new Map([[draft.id, draft.geometry]]) };
        paint(context, now, look, dpr, { only: draft.id });
      }
    });
    return () => cancelAnimationFrame(request);
  }, [still, look, draft, scene, dpr]);

  const pan = useCallback((event: PointerEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget || (event.button !== 0 && event.button !== 1)) return;
    const element = event.currentTarget;
    element.setPointerCapture(event.pointerId);
    let [x, y] = [event.clientX, event.clientY];
    let far = 0;
    const move = (e: globalThis.PointerEvent) => {
      const [dx, dy] = [e.clientX - x, e.clientY - y];
      [x, y] = [e.clientX, e.clientY];
      far += Math.abs(dx) + Math.abs(dy);
      useDesk.setState((s) => (s.look ? { look: { ...s.look, x: s.look.x + dx, y: s.look.y + dy } } : {}));
    };
    const end = () => {
      element.removeEventListener("pointermove", move);
      if (far < 4) useDesk.getState().select(null);
    };
    element.addEventListener("pointermove", move);
    element.addEventListener("pointerup", end, { once: true });
    element.addEventListener("pointercancel", end, { once: true });
  }, []);

  return (
    <Box ref={frame} sx={{ position: "relative", flex: 1, minHeight: 0, overflow: "hidden", bgcolor: colours.sand }}>
      <canvas
        ref={canvas}
        width={Math.round(space.width * dpr)}
        height={Math.round(space.height * dpr)}
        style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}
        aria-hidden
      />
      <Box
        id="board"
        role="group"
        aria-label="Board"
        data-painted={still && display.items.every((i) => i.type !== "drawing" || linework.has(i.linework)) ? "yes" : "no"}
        onPointerDown={pan}
        sx={{ position: "absolute", inset: 0, touchAction: "none", cursor: "default" }}
      >
        {look && children(look)}
      </Box>
    </Box>
  );
}
