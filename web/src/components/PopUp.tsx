/**
 * A button on the ledge, and what it opens above it: a panel that stays while one works on beside it, and is
 * dragged by its name to where it hides nothing.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import Portal from "@mui/material/Portal";
import { useEffect, useLayoutEffect, useRef, useState, type PointerEvent, type ReactNode } from "react";
import { drag } from "../canvas/drag";
import { colours } from "../theme/theme";
import { t } from "../words/words";

/** From the panel to its button, and to the edges of the window; pixels. */
const [GAP, EDGE] = [6, 8] as const;
/** Where panels were dragged to in this window, by their names. */
const places = new Map<string, readonly [left: number, top: number]>();

const inWindow = (left: number, top: number, { offsetWidth, offsetHeight }: HTMLElement) =>
  [
    Math.max(EDGE, Math.min(left, window.innerWidth - offsetWidth - EDGE)),
    Math.max(EDGE, Math.min(top, window.innerHeight - offsetHeight - EDGE)),
  ] as const;

export function PopUp({ button, name, children }: { button: string; name: string; children: ReactNode }) {
  const [open, setOpen] = useState(false);
  const opener = useRef<HTMLButtonElement>(null);
  const close = () => {
    setOpen(false);
    opener.current?.focus();
  };
  return (
    <>
      <Button
        ref={opener}
        variant="outlined"
        aria-haspopup="dialog"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {button}
      </Button>
      {open && (
        <Portal>
          <FloatingPanel name={name} over={opener} onClose={close}>
            {children}
          </FloatingPanel>
        </Portal>
      )}
    </>
  );
}

interface PanelProps {
  name: string;
  over: { readonly current: HTMLElement | null };
  onClose: () => void;
  children: ReactNode;
}

function FloatingPanel({ name, over, onClose, children }: PanelProps) {
  const panel = useRef<HTMLDivElement>(null);
  const [place, setPlace] = useState<readonly [number, number] | null>(null);

  useLayoutEffect(() => {
    const element = panel.current;
    if (!element) return;
    // What is chosen within may make it larger.
    const align = () => {
      const button = over.current?.getBoundingClientRect();
      if (!button) return;
      const left = button.left + button.width / 2 - element.offsetWidth / 2;
      const [x, y] = places.get(name) ?? [left, button.top - GAP - element.offsetHeight];
      setPlace(inWindow(x, y, element));
    };
    align();
    element.focus();
    const observer = new ResizeObserver(align);
    observer.observe(element);
    return () => observer.disconnect();
  }, [name, over]);
  useEffect(() => {
    // Escape closes it from within, and where what had the focus is gone with what was just done in here.
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const own = panel.current?.contains(target) && !target.matches("[aria-expanded=true]");
      if (event.key === "Escape" && (own || document.activeElement === document.body)) onClose();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [onClose]);

  const carry = (event: PointerEvent) => {
    const element = panel.current;
    if (!element || !place || event.button !== 0) return;
    const [left, top] = place;
    drag(event, {
      move: (dx, dy) => {
        const to = inWindow(left + dx, top + dy, element);
        places.set(name, to);
        setPlace(to);
      },
      end: () => undefined,
    });
  };
  return (
    <Paper
      ref={panel}
      role="dialog"
      aria-label={name}
      tabIndex={-1}
      elevation={8}
      style={place ? { left: place[0], top: place[1] } : { visibility: "hidden" }}
      sx={{
        position: "fixed",
        zIndex: "modal",
        maxWidth: `calc(100vw - ${2 * EDGE}px)`,
        maxHeight: `calc(100vh - ${2 * EDGE}px)`,
        overflow: "auto",
        border: `1px solid ${colours.sandShade}`,
        outline: "none",
      }}
    >
      <Box
        onPointerDown={carry}
        sx={{
          position: "sticky",
          top: 0,
          zIndex: 1,
          display: "flex",
          alignItems: "center",
          gap: 2,
          pl: 2,
          pr: 0.5,
          height: 32,
          bgcolor: colours.sand,
          fontSize: 12.5,
          fontWeight: 650,
          cursor: "move",
          touchAction: "none",
          userSelect: "none",
        }}
      >
        <Box sx={{ flex: 1 }}>{name}</Box>
        <Button
          onPointerDown={(event) => event.stopPropagation()}
          onClick={onClose}
          aria-label={t("Close {name}", { name })}
          sx={{ minWidth: 0, minHeight: 24, px: 1, color: "text.primary" }}
        >
          ✕
        </Button>
      </Box>
      {children}
    </Paper>
  );
}
