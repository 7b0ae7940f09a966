/** Small true pictures: of a sheet from its display list, of a view from its linework. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { DisplayList, View, Viewport } from "../api/client";
import { useDisplay } from "../api/queries";
import { geometryOf, type Geometry } from "../board/geometry";
import { useLinework } from "../board/linework";
import { letteringReady, paint } from "../board/paint";
import { screenPens } from "./pens";
import { colours } from "../theme/theme";

const CARD_PENS = screenPens();
const NONE: DisplayList["items"] = [];

function usePicture(display: DisplayList | undefined, geometry: ReadonlyMap<string, Geometry>, width: number, height: number) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [lettering, setLettering] = useState(false);
  useEffect(() => void letteringReady.then(() => setLettering(true)), []);
  const items = display?.items ?? NONE;
  const keys = useMemo(() => items.flatMap((i) => (i.type === "drawing" ? [i.linework] : [])), [items]);
  const linework = useLinework(keys);
  const dpr = window.devicePixelRatio || 1;
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !display || !lettering) return;
    context.setTransform(dpr, 0, 0, dpr, 0, 0);
    context.fillStyle = colours.paper;
    context.fillRect(0, 0, width, height);
    const look = { scale: width / display.width, x: 0, y: height };
    paint(context, { display, linework, geometry }, look, dpr, { thinnest: 0.2 });
  }, [display, linework, geometry, width, height, dpr, lettering]);
  return <canvas ref={canvas} width={width * dpr} height={height * dpr} style={{ width, height, display: "block" }} aria-hidden />;
}

export function SheetThumbnail({ sheet, viewports, width }: { sheet: string; viewports: Viewport[]; width: number }) {
  const { data: display } = useDisplay(sheet);
  const geometry = useMemo(() => new Map(viewports.map((v) => [v.id, geometryOf(v)])), [viewports]);
  const ratio = display ? display.height / display.width : 0.707;
  return usePicture(display, geometry, width, Math.round(width * ratio));
}

export function ViewThumbnail({ view, width, height }: { view: View; width: number; height: number }) {
  const [display, geometry] = useMemo(() => {
    const [u0, v0, u1, v1] = view.extents ?? [0, 0, 1, 1];
    const rim = 5;
    const ratio = Math.min((width - 2 * rim) / ((u1 ?? 1) - (u0 ?? 0)), (height - 2 * rim) / ((v1 ?? 1) - (v0 ?? 0)));
    const whole: Geometry = {
      x: 0,
      y: 0,
      width,
      height,
      ratio,
      centre_u: ((u0 ?? 0) + (u1 ?? 1)) / 2,
      centre_v: ((v0 ?? 0) + (v1 ?? 1)) / 2,
    };
    const items: DisplayList["items"] = view.linework
      ? [{ type: "drawing", viewport: "card", linework: view.linework, clip: [], ratio, place: [], pens: CARD_PENS, fill: "#d9d6cf" }]
      : NONE;
    return [{ width, height, items }, new Map([["card", whole]])] as const;
  }, [view, width, height]);
  return usePicture(display, geometry, width, height);
}
