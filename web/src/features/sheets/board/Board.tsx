/** The board: the sheet on the table, drawn from its display list, with its viewports under the pointer. */
import Box from "@mui/material/Box";
import {
  useEffect,
  useMemo,
  useRef,
  useState,
  type MouseEvent,
  type PointerEvent,
  type ReactNode,
} from "react";
import type { DisplayList } from "../../../api/client";
import { colours } from "../../../theme/theme";
import { drag } from "../../../canvas/drag";
import {
  meets,
  toPaper,
  zoomed,
  type Box as PaperBox,
  type Geometry,
  type Camera,
  type Point,
} from "../../../canvas/geometry";
import { letteringReady } from "../../../canvas/flat";
import { paint, type Scene } from "../../../canvas/paint";
import { BOARD, pictures } from "../../../canvas/pictures";
import { paintTable } from "../../../canvas/rulers";
import type { MadePicture } from "../../../canvas/shaded";
import { REST, SLOW, Still } from "../../../canvas/still";
import { fitTo, keepRoom, useBoard } from "../../../stores/board";
import { select, useSelection } from "../../../stores/selection";
import { useGesture } from "../../../stores/gesture";
import { t } from "../../../words/words";
import { usePixelRatio } from "../../../components/usePixelRatio";
import { Marquee, Outlined, OutlineHint } from "./Drawn";

interface Props {
  /** Changes when another sheet comes to the board: it is then fitted anew. */
  sheet: string;
  display: DisplayList;
  geometry: ReadonlyMap<string, Geometry>;
  /** The pictures under its lines. */
  shaded: ReadonlyMap<string, MadePicture>;
  /** A click of an outline that is being drawn, paper mm; the second of a double click closes it. */
  onOutline: (at: Point, close: boolean) => void;
  /** A right click, or the key for it. */
  onMenu: (event: MouseEvent) => void;
  children: (camera: Camera) => ReactNode;
}

/** What was painted last, and from what. */
interface Painted {
  /** Null where not all was painted from it. */
  scene: Scene | null;
  camera: Camera;
  dpr: number;
  /** The room that it was painted in, which empties the canvas when it changes. */
  space: object;
  /** How often the camera had come to rest. */
  rested: number;
  /** Whether it took long. */
  slow: boolean;
  /** It, or what of it is not dragged, to be laid down again; made when it is first wanted. */
  still: Still | null;
}

export function Board({ sheet, display, geometry, shaded, onOutline, onMenu, children }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const surface = useRef<HTMLDivElement>(null);
  const [space, setSpace] = useState({ width: 0, height: 0 });
  const [lettering, setLettering] = useState(false);
  const [marquee, setMarquee] = useState<PaperBox | null>(null);
  const camera = useBoard((s) => s.camera);
  const draft = useGesture((s) => s.draft);
  const outlining = useGesture((s) => s.outline !== null);
  const [hover, setHover] = useState<Point | null>(null);
  const { width, height } = display;

  useEffect(() => void letteringReady.then(() => setLettering(true)), []);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSpace({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    useBoard.setState({ element });
    return () => {
      observer.disconnect();
      useBoard.setState({ element: null, painted: null });
    };
  }, []);
  useEffect(() => {
    useBoard.setState({ paper: { x: 0, y: 0, width, height }, room: space });
    keepRoom(space);
    fitTo(useBoard.getState().lookAt ?? undefined);
    if (space.width) useBoard.setState({ lookAt: null });
  }, [sheet, width, height, space]);

  // A wheel that zooms must keep the page from scrolling, which React's own listener cannot.
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const { left, top } = element.getBoundingClientRect();
      // A pinch on a pad comes as a turn of the wheel with Ctrl, in smaller steps.
      const by = Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0016));
      useBoard.setState((s) =>
        s.camera ? { camera: zoomed(s.camera, by, event.clientX - left, event.clientY - top) } : {},
      );
    };
    element.addEventListener("wheel", turn, { passive: false });
    return () => element.removeEventListener("wheel", turn);
  }, []);

  const dpr = usePixelRatio();
  const working = useBoard((s) => s.workingColours);
  const scene: Scene = useMemo(
    () => ({
      display,
      geometry: draft ? new Map([...geometry, ...draft]) : geometry,
      shaded,
      place: BOARD,
      held: draft ? new Set(draft.keys()) : undefined,
      working,
    }),
    [display, geometry, shaded, draft, working],
  );
  useEffect(() => {
    if (!camera || !space.width) return;
    const [left, top] = toPaper(camera, 0, 0);
    const [right, bottom] = toPaper(camera, space.width, space.height);
    const [x, y] = [Math.max(left, 0), Math.max(bottom, 0)];
    useBoard.setState({ seen: [x, y, Math.min(right, width) - x, Math.min(top, height) - y] });
  }, [camera, space, width, height]);
  const painted = useRef<Painted | null>(null);
  const [rested, setRested] = useState(0);
  /** How many times pictures have come. */
  const came = useRef(0);
  useEffect(() => {
    let rest: number | undefined;
    let told: number | undefined;
    const paintBoard = () => {
      const own = canvas.current;
      if (!own || !camera || !space.width || !lettering) return;
      // It is black from here on until it is painted.
      const context = own.getContext("2d", { alpha: false, willReadFrequently: true });
      if (!context) return;
      const last = (painted.current ??= {
        scene: null,
        camera,
        dpr,
        space,
        rested,
        slow: false,
        still: null,
      });
      const table = (on: CanvasRenderingContext2D) => {
        on.setTransform(dpr, 0, 0, dpr, 0, 0);
        paintTable(on, { width, height }, camera);
      };
      const { held } = scene;
      let complete: boolean;
      if (held) {
        // What is not dragged is painted once.
        const key = [scene.display, camera, came.current, dpr, own.width, own.height, [...held].join()];
        if (!last.still?.isOf(key))
          last.still = new Still(key, camera, own, (on) => {
            table(on);
            return paint(on, { ...scene, only: (owner) => !held.has(owner) }, camera, dpr);
          });
        last.still.lay(context, camera, dpr);
        complete = paint(context, { ...scene, only: (owner) => held.has(owner) }, camera, dpr);
        complete = complete && last.still.complete;
        last.scene = null;
      } else if (
        last.slow &&
        last.camera !== camera &&
        last.scene === scene &&
        last.dpr === dpr &&
        last.space === space &&
        last.rested === rested
      ) {
        // While the camera moves, the last picture moves with it; it is painted anew when that rests.
        last.still ??= new Still([], last.camera, own, (on) => {
          on.drawImage(own, 0, 0);
          return false;
        });
        table(context);
        last.still.lay(context, camera, dpr);
        complete = false;
        window.clearTimeout(rest);
        rest = window.setTimeout(() => setRested((n) => n + 1), REST);
      } else {
        const begun = performance.now();
        table(context);
        complete = paint(context, scene, camera, dpr);
        const slow = performance.now() - begun > SLOW;
        painted.current = { scene, camera, dpr, space, rested, slow, still: null };
      }
      surface.current?.setAttribute("data-sheet", sheet);
      surface.current?.setAttribute("data-painted", complete ? "yes" : "no");
      // What waits for it is rendered once it is seen.
      window.clearTimeout(told);
      if (complete && useBoard.getState().painted !== sheet)
        told = window.setTimeout(() => useBoard.setState({ painted: sheet }));
    };
    let request = requestAnimationFrame(paintBoard);
    // A picture that has come is laid down with the next frame, whatever is being rendered beside the board.
    const stop = pictures.watch(BOARD, () => {
      came.current += 1;
      cancelAnimationFrame(request);
      request = requestAnimationFrame(paintBoard);
    });
    return () => {
      stop();
      cancelAnimationFrame(request);
      window.clearTimeout(rest);
      window.clearTimeout(told);
    };
  }, [sheet, camera, space, lettering, scene, dpr, width, height, rested]);

  const at = (event: { clientX: number; clientY: number }): Point => {
    const box = surface.current?.getBoundingClientRect();
    return camera && box ? toPaper(camera, event.clientX - box.left, event.clientY - box.top) : [0, 0];
  };

  function pan(event: PointerEvent) {
    event.stopPropagation();
    let [x, y] = [0, 0];
    drag(event, {
      move: (dx, dy) => {
        const [bx, by] = [dx - x, dy - y];
        [x, y] = [dx, dy];
        useBoard.setState((s) =>
          s.camera ? { camera: { ...s.camera, x: s.camera.x + bx, y: s.camera.y + by } } : {},
        );
      },
      end: (dragged) => !dragged && select(null),
    });
  }

  /** Choose the viewports that a box meets; with Shift beside those that are chosen. */
  function choose(event: PointerEvent) {
    const from = at(event);
    const before = event.shiftKey ? useSelection.getState().selected : [];
    const boxTo = (e: { clientX: number; clientY: number }): PaperBox => {
      const [x, y] = at(e);
      return {
        x: Math.min(x, from[0]),
        y: Math.min(y, from[1]),
        width: Math.abs(x - from[0]),
        height: Math.abs(y - from[1]),
      };
    };
    drag(event, {
      move: (_dx, _dy, e) => setMarquee(boxTo(e)),
      end: (dragged, e) => {
        const box = boxTo(e);
        const met = dragged ? [...geometry].filter(([, g]) => meets(g, box)).map(([id]) => id) : [];
        // Of annotation what lies wholly within: much of it stands on the drawings that are met.
        if (dragged) met.push(...display.pieces.filter((p) => within(p.box, box)).map((p) => p.piece));
        select([...new Set([...before, ...met])]);
      },
      onEnd: () => setMarquee(null),
    });
  }

  /** Before anything on the board gets the press: what is drawn may begin on a viewport or its handles. */
  function pressFirst(event: PointerEvent<HTMLDivElement>) {
    if (event.button === 1) return pan(event);
    if (!outlining || event.button !== 0) return;
    event.preventDefault();
    event.stopPropagation();
    surface.current?.focus(); // Enter closes the outline, and opens no list that was chosen from before
    onOutline(at(event), event.detail > 1);
  }

  function press(event: PointerEvent<HTMLDivElement>) {
    if (event.target !== event.currentTarget || event.button !== 0) return;
    const [x, y] = at(event);
    if (x >= 0 && y >= 0 && x <= width && y <= height) choose(event);
    else pan(event);
  }

  return (
    <Box
      ref={frame}
      sx={{ position: "relative", flex: 1, minHeight: 0, overflow: "hidden", bgcolor: colours.sand }}
    >
      <canvas
        ref={canvas}
        width={Math.round(space.width * dpr)}
        height={Math.round(space.height * dpr)}
        style={{ position: "absolute", inset: 0, width: "100%", height: "100%" }}
        aria-hidden
      />
      <Box
        id="board"
        ref={surface}
        role="group"
        aria-label={t("Board")}
        tabIndex={-1}
        data-painted="no"
        onPointerDownCapture={pressFirst}
        onPointerDown={press}
        onContextMenu={onMenu}
        onPointerMove={outlining ? (event) => setHover(at(event)) : undefined}
        sx={{
          position: "absolute",
          inset: 0,
          outline: "none",
          touchAction: "none",
          cursor: outlining ? "crosshair" : "default",
          ...(outlining && { "& *": { cursor: "crosshair !important" } }),
        }}
      >
        {outlining && <OutlineHint />}
        {camera && (
          <>
            {children(camera)}
            {outlining && <Outlined camera={camera} hover={hover} />}
            {marquee && <Marquee camera={camera} box={marquee} />}
          </>
        )}
      </Box>
    </Box>
  );
}

const within = (a: PaperBox, b: PaperBox) =>
  a.x >= b.x && a.y >= b.y && a.x + a.width <= b.x + b.width && a.y + a.height <= b.y + b.height;
