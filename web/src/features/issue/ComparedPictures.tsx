/** The pictures of two states at any zoom: one over the other, side by side, or swept across. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useEffect, useLayoutEffect, useRef, useState, type PointerEvent } from "react";
import type { Comparison, Difference } from "../../api/client";
import { drag } from "../../canvas/drag";
import { zoomed, fitted, type Camera } from "../../canvas/geometry";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

export type Mode = "over" | "beside" | "swept";
type Which = "before" | "after" | "over";

/** So much about a difference is seen, mm; and the zoom of a step. */
const ABOUT = 40;
const STEP = 1.2;

interface Props {
  comparison: Comparison;
  mode: Mode;
  /** What is ringed and brought into sight, mm of the newer sheet. */
  shown: NonNullable<Difference["box"]> | null;
}

export function ComparedPictures({ comparison, mode, shown }: Props) {
  const room = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [camera, setCamera] = useState<Camera | null>(null);
  const [share, setShare] = useState(0.5);
  const [width = 1, height = 1, strip = 0] = comparison.size;
  const pane = { width: mode === "beside" ? (size.width - 1) / 2 : size.width, height: size.height };
  useLayoutEffect(() => {
    const element = room.current;
    if (!element) return;
    const watch = new ResizeObserver(([entry]) => entry && setSize(entry.contentRect));
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  const whole = { x: 0, y: 0, width, height };
  const now = camera ?? (size.width ? fitted(whole, pane) : null);
  const about = shown && { ...shown, y: shown.y + strip };
  const wanted = about && JSON.stringify(about);
  const paneNow = useRef(pane);
  useEffect(() => void (paneNow.current = pane));
  useEffect(() => {
    if (!wanted) return;
    const box = JSON.parse(wanted) as NonNullable<Props["shown"]>;
    setCamera(
      fitted(
        {
          x: box.x - ABOUT,
          y: box.y - ABOUT,
          width: box.width + 2 * ABOUT,
          height: box.height + 2 * ABOUT,
        },
        paneNow.current,
      ),
    );
  }, [wanted]);
  const nowRef = useRef(now);
  useEffect(() => void (nowRef.current = now));
  useEffect(() => {
    const element = room.current;
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const at = nowRef.current;
      if (!at) return;
      const box = element.getBoundingClientRect();
      const x = (event.clientX - box.left) % paneNow.current.width;
      setCamera(zoomed(at, event.deltaY < 0 ? STEP : 1 / STEP, x, event.clientY - box.top));
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => element.removeEventListener("wheel", wheel);
  }, []);
  const press = (event: PointerEvent) => {
    if (event.button !== 0 || !now) return;
    const from = now;
    drag(event, {
      move: (dx, dy) => setCamera({ ...from, x: from.x + dx, y: from.y + dy }),
      end: () => undefined,
    });
  };
  const sweep = (event: PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const from = share;
    drag(event, {
      move: (dx) => setShare(Math.min(1, Math.max(0, from + dx / size.width))),
      end: () => undefined,
    });
  };
  const picture = (which: Which, clip?: string) =>
    now && (
      <Box
        component="img"
        key={which}
        alt={ALT[which](comparison.names)}
        src={`/api/comparisons/${comparison.id}/picture/?which=${which}`}
        draggable={false}
        sx={{
          position: "absolute",
          left: now.x,
          top: now.y - height * now.scale,
          width: width * now.scale,
          height: height * now.scale,
          clipPath: clip,
          userSelect: "none",
        }}
      />
    );
  const ring = now && about && (
    <Box
      data-difference
      sx={{
        position: "absolute",
        left: now.x + about.x * now.scale - 8,
        top: now.y - (about.y + about.height) * now.scale - 8,
        width: about.width * now.scale + 16,
        height: about.height * now.scale + 16,
        border: `2px solid ${colours.rust}`,
        borderRadius: "6px",
        pointerEvents: "none",
      }}
    />
  );
  const inside = { position: "relative", flex: 1, overflow: "hidden", bgcolor: colours.sand } as const;
  const cut = now ? (share * size.width - now.x) / (width * now.scale) : 0;
  return (
    <Box
      ref={room}
      role="region"
      aria-label={t("Compared drawings")}
      onPointerDown={press}
      sx={{
        flex: 1,
        minWidth: 0,
        position: "relative",
        display: "flex",
        cursor: "grab",
        touchAction: "none",
      }}
    >
      {mode === "beside" ? (
        (["before", "after"] as const).map((which, k) => (
          <Box key={which} sx={{ ...inside, borderLeft: k ? `1px solid ${colours.ink}` : "none" }}>
            {picture(which)}
            {ring}
            <Named>{comparison.names[k]}</Named>
          </Box>
        ))
      ) : (
        <Box sx={inside}>
          {mode === "over" && picture("over")}
          {mode === "swept" && (
            <>
              {picture("after")}
              {picture("before", `inset(0 ${(1 - cut) * 100}% 0 0)`)}
              <Box
                role="slider"
                aria-label={t("Line between the two states")}
                aria-valuenow={Math.round(share * 100)}
                tabIndex={0}
                onPointerDown={sweep}
                onKeyDown={(event) => {
                  const by = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
                  if (by) setShare(Math.min(1, Math.max(0, share + by)));
                }}
                sx={{
                  position: "absolute",
                  top: 0,
                  bottom: 0,
                  left: `calc(${share * 100}% - 6px)`,
                  width: 12,
                  cursor: "ew-resize",
                  "&::after": {
                    content: '""',
                    position: "absolute",
                    inset: "0 5px",
                    bgcolor: colours.rust,
                  },
                }}
              />
              <Named>{comparison.names[0]}</Named>
              <Named right>{comparison.names[1]}</Named>
            </>
          )}
          {ring}
        </Box>
      )}
      <Button
        variant="outlined"
        onPointerDown={(event) => event.stopPropagation()}
        onClick={() => setCamera(null)}
        sx={{ position: "absolute", right: 14, bottom: 12 }}
      >
        {t("Fit")}
      </Button>
    </Box>
  );
}

const ALT: Record<Which, (names: readonly string[]) => string> = {
  before: ([before]) => before ?? "",
  after: ([, after]) => after ?? "",
  over: ([before, after]) => t("{after} over {before}", { after, before }),
};

function Named({ right, children }: { right?: boolean; children: string | undefined }) {
  return (
    <Box
      sx={{
        position: "absolute",
        top: 10,
        [right ? "right" : "left"]: 10,
        px: 1,
        py: 0.25,
        fontSize: 12,
        fontWeight: 650,
        bgcolor: colours.sandPale,
        border: `1px solid ${colours.sandDeep}`,
        borderRadius: "3px",
        pointerEvents: "none",
      }}
    >
      {children}
    </Box>
  );
}
