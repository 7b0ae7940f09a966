/** Following the pointer from press to release; Escape ends it without a change. */

/** The pointer drags once it has moved so far; pixels. */
const CLICK_TOLERANCE = 3;

/** What a press of the pointer tells: a browser's event, or React's. */
interface Press {
  currentTarget: EventTarget;
  pointerId: number;
  clientX: number;
  clientY: number;
}

interface Drag {
  /** The pointer has moved by so many pixels since it was pressed. */
  move: (dx: number, dy: number, event: PointerEvent) => void;
  /** It was let go; `dragged` is false for a click. */
  end: (dragged: boolean, event: PointerEvent) => void;
  /** It is over, whether something came of it or not. */
  onEnd?: () => void;
}

export function drag(press: Press, { move, end, onEnd }: Drag) {
  const target = press.currentTarget as HTMLElement;
  target.setPointerCapture(press.pointerId);
  const { clientX, clientY } = press;
  let dragged = false;
  const moved = (event: PointerEvent) => {
    const [dx, dy] = [event.clientX - clientX, event.clientY - clientY];
    if (!dragged && Math.hypot(dx, dy) < CLICK_TOLERANCE) return;
    dragged = true;
    move(dx, dy, event);
  };
  const over = () => {
    target.removeEventListener("pointermove", moved);
    target.removeEventListener("pointerup", up);
    target.removeEventListener("pointercancel", over);
    window.removeEventListener("keydown", escape, true);
    onEnd?.();
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
