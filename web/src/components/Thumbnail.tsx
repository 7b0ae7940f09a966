/** Small true pictures: of a sheet from its display list, of a view from its linework. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { DisplayList, View, Viewport } from "../api/client";
import { useDisplay } from "../api/sheets";
import { geometryOf, type Geometry } from "../canvas/geometry";
import { letteringReady } from "../canvas/flat";
import { paint } from "../canvas/paint";
import { pictures } from "../canvas/pictures";
import { madePictures, type MadePicture } from "../canvas/shaded";
import { drawingOf, onlyItems, screenPens } from "../canvas/screenPens";
import { colours } from "../theme/theme";
import { usePixelRatio } from "./usePixelRatio";

const CARD_PENS = screenPens();
const NONE: DisplayList["items"] = [];
/** A small picture is painted so much later than what it is of may be on the screen; milliseconds. */
const AFTER = 400;

/** Paint a scene whenever it changes, and again as its pictures come. */
function usePicture(
  display: DisplayList | undefined,
  geometry: ReadonlyMap<string, Geometry>,
  place: string,
  width: number,
  height: number,
  shaded?: ReadonlyMap<string, MadePicture>,
) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [lettering, setLettering] = useState(false);
  useEffect(() => void letteringReady.then(() => setLettering(true)), []);
  const dpr = usePixelRatio();
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !display || !lettering) return;
    const camera = { scale: width / display.width, x: 0, y: height };
    const again = () => {
      context.setTransform(dpr, 0, 0, dpr, 0, 0);
      context.fillStyle = colours.paper;
      context.fillRect(0, 0, width, height);
      if (paint(context, { display, geometry, shaded, place, thinnest: 0.2 }, camera, dpr)) stop();
    };
    const stop = pictures.watch(place, again);
    // What is large and in the middle comes first.
    const timer = window.setTimeout(again, AFTER);
    return () => {
      window.clearTimeout(timer);
      stop();
    };
  }, [display, geometry, shaded, place, width, height, dpr, lettering]);
  return (
    <canvas
      ref={canvas}
      width={width * dpr}
      height={height * dpr}
      style={{ width, height, display: "block" }}
      aria-hidden
    />
  );
}

export function SheetThumbnail({
  sheet,
  viewports,
  width,
  place = `sheet ${sheet}`,
}: {
  sheet: string;
  viewports: Viewport[];
  width: number;
  /** What its pictures are kept as, where the sheet is shown in another size elsewhere. */
  place?: string;
}) {
  const { data: display } = useDisplay(sheet);
  const geometry = useMemo(() => new Map(viewports.map((v) => [v.id, geometryOf(v)])), [viewports]);
  const shaded = useMemo(() => madePictures(viewports), [viewports]);
  const ratio = display ? display.height / display.width : 0.707;
  return usePicture(display, geometry, place, width, Math.round(width * ratio), shaded);
}

export function ViewThumbnail({ view, width, height }: { view: View; width: number; height: number }) {
  const [display, geometry] = useMemo(() => {
    const [u0, v0, u1, v1] = view.extents ?? [0, 0, 1, 1];
    const margin = 5;
    const ratio = Math.min(
      (width - 2 * margin) / ((u1 ?? 1) - (u0 ?? 0)),
      (height - 2 * margin) / ((v1 ?? 1) - (v0 ?? 0)),
    );
    const whole: Geometry = {
      x: 0,
      y: 0,
      width,
      height,
      ratio,
      turn: 0,
      shape: "rectangle",
      corners: [],
      centre_u: ((u0 ?? 0) + (u1 ?? 1)) / 2,
      centre_v: ((v0 ?? 0) + (v1 ?? 1)) / 2,
    };
    const items: DisplayList["items"] = view.linework ? [drawingOf(view.linework, CARD_PENS)] : NONE;
    return [onlyItems(width, height, items), new Map([["view", whole]])] as const;
  }, [view, width, height]);
  return usePicture(display, geometry, `view ${view.id}`, width, height);
}
