/** Following the pointer from press to release; escape lets go without a change. */
import type { PointerEvent as Press } from "react";

/** As far as the pointer may tremble before it drags; pixels. */
const TREMBLE = 3;

interface Drag {
  /** The pointer has moved by so many pixels since it was pressed. */
  move: (dx: number, dy: number, event: PointerEvent) => void;
  /** It was let go; `dragged` is false for a click. */
  end: (dragged: boolean, event: PointerEvent) => void;
  /** The hand is empty again, whether something came of it or not. */
  letGo?: () => void;
}

export function drag(press: Press, { move, end, letGo }: Drag) {
  const target = press.currentTarget as HTMLElement;
  target.setPointerCapture(press.pointerId);
  const { clientX, clientY } = press;
  let dragged = false;
  const moved = (event: PointerEvent) => {
    const [dx, dy] = [event.clientX - clientX, event.clientY - clientY];
    if (!dragged && Math.hypot(dx, dy) < TREMBLE) return;
    dragged = true;
    move(dx, dy, event);
  };
  const over = () => {
    target.removeEventListener("pointermove", moved);
    target.removeEventListener("pointerup", up);
    target.removeEventListener("pointercancel", over);
    window.removeEventListener("keydown", escape, true);
    letGo?.();
  };
  const up = (event: PointerEvent) => {
    end(dragged, event);
    over();
  };
  const escape = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    over();
  };
  target.addEventListener("pointermove", moved);
  target.addEventListener("pointerup", up);
  target.addEventListener("pointercancel", over);
  window.addEventListener("keydown", escape, true);
}
