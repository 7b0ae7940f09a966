/**
 * The linework of a view, large: panned by dragging, zoomed by the wheel, with room for what is drawn over
 * it.
 */
import Box from "@mui/material/Box";
import {
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type PointerEvent,
  type ReactNode,
} from "react";
import type { Extents, Geometry, Point } from "../../canvas/geometry";
import { drag } from "../../canvas/drag";
import { paint } from "../../canvas/paint";
import { pictures } from "../../canvas/pictures";
import { drawingOf, onlyItems, screenPens } from "../../canvas/screenPens";
import { colours } from "../../theme/theme";
import { usePixelRatio } from "../../components/usePixelRatio";

/** Where a view lies on the screen: pixels for a millimetre of the building, and the u, v in its middle. */
export interface Sight {
  ratio: number;
  u: number;
  v: number;
  width: number;
  height: number;
}

export const onScreen = (s: Sight, u: number, v: number): Point => [
  s.width / 2 + (u - s.u) * s.ratio,
  s.height / 2 - (v - s.v) * s.ratio,
];
export const inView = (s: Sight, x: number, y: number): Point => [
  s.u + (x - s.width / 2) / s.ratio,
  s.v - (y - s.height / 2) / s.ratio,
];

interface Props {
  linework: string | null;
  extents: readonly number[] | null;
  label: string;
  /** Heavier lines for a large drawing than for a small one. */
  weight?: number;
  margin?: number;
  fixed?: boolean;
  cursor?: string;
  /** A click that was no drag, at a point of the view. */
  onPoint?: (at: Point, event: PointerEvent) => void;
  onHover?: (at: Point) => void;
  children?: (sight: Sight) => ReactNode;
}

const NOWHERE = [0, 0, 10_000, 10_000] as const;

export function Drawing({
  linework,
  extents,
  label,
  weight = 2.4,
  margin = 36,
  fixed,
  cursor,
  onPoint,
  onHover,
  children,
}: Props) {
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [moved, setMoved] = useState<{ of: string | null; ratio: number; u: number; v: number } | null>(null);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () => setSize({ width: element.clientWidth, height: element.clientHeight });
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(element);
    return () => watch.disconnect();
  }, []);

  const sight: Sight = useMemo(() => {
    const [u0, v0, u1, v1] = (extents ?? NOWHERE) as Extents;
    if (moved && moved.of === label) return { ...size, ratio: moved.ratio, u: moved.u, v: moved.v };
    const fit = Math.min(
      (size.width - 2 * margin) / Math.max(u1 - u0, 1),
      (size.height - 2 * margin) / Math.max(v1 - v0, 1),
    );
    return { ...size, ratio: Math.max(fit, 1e-6), u: (u0 + u1) / 2, v: (v0 + v1) / 2 };
  }, [extents, moved, size, label, margin]);

  const dpr = usePixelRatio();
  const pens = useMemo(() => screenPens(weight), [weight]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !size.width) return;
    const { width, height } = size;
    const geometry: Geometry = {
      x: 0,
      y: 0,
      width,
      height,
      ratio: sight.ratio,
      centre_u: sight.u,
      centre_v: sight.v,
      turn: 0,
      shape: "rectangle",
      corners: [],
    };
    const display = onlyItems(width, height, linework ? [drawingOf(linework, pens)] : []);
    const scene = { display, geometry: new Map([["view", geometry]]), place: label, thinnest: 0.4 };
    const again = () => {
      context.setTransform(dpr, 0, 0, dpr, 0, 0);
      context.fillStyle = colours.paper;
      context.fillRect(0, 0, width, height);
      if (paint(context, scene, { scale: 1, x: 0, y: height }, dpr)) stop();
    };
    // While a view is drawn anew, the last good drawing stays: its picture serves until the next one comes.
    const stop = pictures.watch(label, again);
    again();
    return stop;
  }, [linework, sight, size, dpr, pens, label]);

  const place = (event: { clientX: number; clientY: number }): Point => {
    const at = box.current?.getBoundingClientRect();
    return [event.clientX - (at?.left ?? 0), event.clientY - (at?.top ?? 0)];
  };

  useEffect(() => {
    const element = box.current;
    if (!element || fixed) return;
    const zoom = (event: WheelEvent) => {
      event.preventDefault();
      const [x, y] = place(event);
      const [u, v] = inView(sight, x, y);
      const ratio = Math.min(5, Math.max(1e-4, sight.ratio * Math.exp(-event.deltaY * 0.0015)));
      const by = sight.ratio / ratio;
      setMoved({ of: label, ratio, u: u + (sight.u - u) * by, v: v + (sight.v - v) * by });
    };
    element.addEventListener("wheel", zoom, { passive: false });
    return () => element.removeEventListener("wheel", zoom);
  }, [sight, fixed, label]);

  function press(event: PointerEvent) {
    if (event.button !== 0) return;
    const from = place(event);
    const began = sight;
    drag(event, {
      move: (dx, dy) => {
        if (fixed) return;
        const { ratio } = began;
        setMoved({ of: label, ratio, u: began.u - dx / ratio, v: began.v + dy / ratio });
      },
      end: (dragged) => !dragged && onPoint?.(inView(began, from[0], from[1]), event),
    });
  }

  return (
    <Box
      ref={box}
      role="img"
      aria-label={label}
      onPointerDown={press}
      onPointerMove={onHover && ((event: PointerEvent) => onHover(inView(sight, ...place(event))))}
      onDoubleClick={() => !onPoint && setMoved(null)}
      sx={{
        position: "relative",
        width: "100%",
        height: "100%",
        overflow: "hidden",
        bgcolor: colours.paper,
        cursor: cursor ?? "grab",
        touchAction: "none",
      }}
    >
      <canvas
        ref={canvas}
        width={size.width * dpr}
        height={size.height * dpr}
        style={{ width: size.width, height: size.height, display: "block" }}
      />
      {size.width > 0 && children?.(sight)}
    </Box>
  );
}
