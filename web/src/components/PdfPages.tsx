/** The pages of a PDF at any zoom, with what their device cannot print, and what that cuts off. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from "react";
import type { Page } from "../api/client";
import { colours } from "../theme/theme";
import { Margins } from "./Margins";
import type { Pdf, PdfPage } from "./pdf";
import { usePixelRatio } from "./usePixelRatio";
import { t } from "../words/words";

/** Pixels of the page for a millimetre of paper at 100 %: 96 to the inch. */
const TRUE = 96 / 25.4;
const STEPS = [0.25, 0.5, 0.75, 1, 1.5, 2, 3, 4, 6, 8];
/** A canvas of more pixels than this is painted in part: what is seen of it, and a margin. */
const MAX_PIXELS = 7_000_000;
const MARGIN = 240;
/** How long nothing moves before what has come into view is painted; milliseconds. */
const REST = 90;

interface Props {
  pdf: Pdf;
  /** What is known of each page. */
  pages: readonly Page[];
}

export function PdfPages({ pdf, pages }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(0);
  /** Nought fits the widest page to the room. */
  const [zoom, setZoom] = useState(0);
  const [seen, setSeen] = useState(0);
  useLayoutEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => entry && setRoom(entry.contentRect.width));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const widest = Math.max(...pages.map((p) => p.width), 1);
  const scale = zoom ? zoom * TRUE : (room - 4) / widest;
  const step = (way: 1 | -1) => {
    const now = scale / TRUE;
    setZoom((way > 0 ? STEPS.find((s) => s > now * 1.01) : STEPS.findLast((s) => s < now * 0.99)) ?? now);
  };
  const stepped = useRef(step);
  useEffect(() => void (stepped.current = step));
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    let timer = 0;
    const rested = () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(() => setSeen((n) => n + 1), REST);
    };
    const wheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      stepped.current(event.deltaY < 0 ? 1 : -1);
    };
    element.addEventListener("scroll", rested);
    element.addEventListener("wheel", wheel, { passive: false });
    return () => {
      window.clearTimeout(timer);
      element.removeEventListener("scroll", rested);
      element.removeEventListener("wheel", wheel);
    };
  }, []);

  return (
    <Box sx={{ flex: 1, minHeight: 0, position: "relative", display: "flex" }}>
      <Box
        ref={scroller}
        tabIndex={0}
        aria-label={t("Pages")}
        role="region"
        sx={{ flex: 1, overflow: "auto", bgcolor: colours.sand, p: 2.5 }}
      >
        {room > 0 &&
          Array.from({ length: pdf.numPages }, (_, k) => (
            <OnePage
              key={k}
              pdf={pdf}
              number={k + 1}
              about={pages[k]}
              scale={scale}
              scroller={scroller}
              seen={seen}
            />
          ))}
      </Box>
      <Box
        sx={{
          position: "absolute",
          right: 22,
          bottom: 14,
          display: "flex",
          alignItems: "center",
          bgcolor: "background.paper",
          border: `1px solid ${colours.sandShade}`,
          borderRadius: 1,
          boxShadow: "0 2px 8px #4a3c2233",
        }}
      >
        <Tooltip title={t("Smaller (Ctrl + wheel)")}>
          <Button aria-label={t("Zoom out")} onClick={() => step(-1)} sx={{ minWidth: 32, px: 0 }}>
            −
          </Button>
        </Tooltip>
        <Box
          role="status"
          aria-label={t("Zoom")}
          sx={{ width: 46, textAlign: "center", fontSize: 12, fontVariantNumeric: "tabular-nums" }}
        >
          {Math.round((scale / TRUE) * 100)} %
        </Box>
        <Tooltip title={t("Larger (Ctrl + wheel)")}>
          <Button aria-label={t("Zoom in")} onClick={() => step(1)} sx={{ minWidth: 32, px: 0 }}>
            +
          </Button>
        </Tooltip>
        <Button onClick={() => setZoom(0)} aria-pressed={zoom === 0} sx={{ minWidth: 0, px: 1 }}>
          {t("Fit")}
        </Button>
        <Tooltip title={t("As large as on paper")}>
          <Button onClick={() => setZoom(1)} aria-pressed={zoom === 1} sx={{ minWidth: 0, px: 1 }}>
            {t("True size")}
          </Button>
        </Tooltip>
      </Box>
    </Box>
  );
}

interface OneProps {
  pdf: Pdf;
  number: number;
  about: Page | undefined;
  /** Pixels for a millimetre. */
  scale: number;
  scroller: RefObject<HTMLDivElement | null>;
  /** Changes when another part of the pages has come into view. */
  seen: number;
}

/** The part of a page that is painted, in pixels of the page. */
interface Part {
  x: number;
  y: number;
  width: number;
  height: number;
}

function OnePage({ pdf, number, about, scale, scroller, seen }: OneProps) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [page, setPage] = useState<PdfPage | null>(null);
  const painted = useRef("");
  useEffect(() => {
    let gone = false;
    void pdf.getPage(number).then(
      (got) => !gone && setPage(got),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [pdf, number]);
  const dpr = usePixelRatio();
  const [width, height] = [Math.round((about?.width ?? 1) * scale), Math.round((about?.height ?? 1) * scale)];

  useEffect(() => {
    const [target, box, view] = [canvas.current, frame.current, scroller.current];
    if (!page || !target || !box || !view) return;
    const part = visible(box, view, width, height, dpr);
    if (!part) return;
    const key = JSON.stringify([part, scale]);
    if (painted.current === key) return;
    painted.current = key;
    // Painted beside what is seen and laid over it whole, so that nothing flickers.
    const made = document.createElement("canvas");
    [made.width, made.height] = [Math.ceil(part.width * dpr), Math.ceil(part.height * dpr)];
    const natural = page.getViewport({ scale: 1 });
    const viewport = page.getViewport({
      scale: (width / natural.width) * dpr,
      offsetX: -part.x * dpr,
      offsetY: -part.y * dpr,
    });
    const task = page.render({ canvas: made, viewport });
    task.promise.then(
      () => {
        [target.width, target.height] = [made.width, made.height];
        target.getContext("2d")?.drawImage(made, 0, 0);
        Object.assign(target.style, {
          left: `${part.x}px`,
          top: `${part.y}px`,
          width: `${part.width}px`,
          height: `${part.height}px`,
        });
        target.dataset.painted = "yes";
      },
      () => (painted.current = ""), // taken off the screen before it was finished
    );
    return () => task.cancel();
  }, [page, width, height, scale, dpr, seen, scroller]);

  return (
    <Box
      ref={frame}
      sx={{
        position: "relative",
        width,
        height,
        mb: 2.5,
        mx: "auto",
        boxShadow: "0 3px 14px rgba(74, 60, 34, 0.28)",
        bgcolor: colours.paper,
        overflow: "hidden",
      }}
    >
      <canvas
        ref={canvas}
        style={{ position: "absolute" }}
        role="img"
        aria-label={t("Page {number}", { number })}
      />
      {about && (
        <>
          <Margins paper={about} margins={about.margins} scale={scale} />
          {about.cut_off.map(({ what, ...box }) => (
            <Box
              key={what}
              title={t("{what}: not printed whole", { what })}
              sx={{
                position: "absolute",
                left: box.x * scale,
                top: (about.height - box.y - box.height) * scale,
                width: box.width * scale,
                height: box.height * scale,
                outline: `1.5px dashed ${colours.rust}`,
                outlineOffset: -1,
                pointerEvents: "none",
              }}
            />
          ))}
        </>
      )}
    </Box>
  );
}

/**
 * What of a page is to be painted: all of one that is not too large, else what is seen of it; nothing far
 * from the eye.
 */
function visible(
  box: HTMLElement,
  view: HTMLElement,
  width: number,
  height: number,
  dpr: number,
): Part | null {
  const [a, b] = [box.getBoundingClientRect(), view.getBoundingClientRect()];
  if (a.bottom < b.top - b.height || a.top > b.bottom + b.height) return null;
  if (width * height * dpr * dpr <= MAX_PIXELS) return { x: 0, y: 0, width, height };
  const x = Math.max(0, Math.floor(b.left - a.left) - MARGIN);
  const y = Math.max(0, Math.floor(b.top - a.top) - MARGIN);
  const right = Math.min(width, Math.ceil(b.right - a.left) + MARGIN);
  const low = Math.min(height, Math.ceil(b.bottom - a.top) + MARGIN);
  return right > x && low > y ? { x, y, width: right - x, height: low - y } : null;
}
