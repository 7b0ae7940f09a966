/** The keys of the Sheets station, and what the help card says of them. */
import { useEffect } from "react";
import { step } from "../../api/deeds";
import { useDesk } from "../../board/desk";

export const KEYS: readonly (readonly [string, string])[] = [
  ["Arrows", "nudge by 1 mm what is chosen, or what is seen when reached in"],
  ["Shift + arrows", "nudge by 0.1 mm"],
  ["Alt while dragging", "no snapping"],
  ["Shift + click, drag across the paper", "choose several"],
  ["Ctrl + A", "choose all viewports of the sheet"],
  ["Enter, double click", "reach in; then a double click brings what is under it to the middle"],
  ["Escape", "step out; let go; choose nothing"],
  ["Page Up, Page Down", "next larger, next smaller scale of the ladder"],
  ["I", "pin, unpin"],
  ["Home, End", "to the front, to the back"],
  ["Ctrl + C, Ctrl + V", "copy, paste on this sheet or another"],
  ["Ctrl + D", "duplicate"],
  ["Delete", "delete what is chosen"],
  ["V", "the cards of the saved views"],
  ["0, 1", "the whole sheet, what is chosen"],
  ["Wheel, middle button", "zoom and move the board; never a drawing"],
  ["W", "working colours or as plotted, on the board"],
  ["P", "plot this sheet"],
  ["Ctrl + Z, Ctrl + Shift + Z", "take back, do again"],
  ["?", "this card"],
];

export interface KeyDeeds {
  nudge: (dx: number, dy: number) => void;
  climb: (rungs: number) => void;
  remove: () => void;
  copy: () => void;
  paste: () => void;
  duplicate: () => void;
  chooseAll: () => void;
  pin: () => void;
  stack: (front: boolean) => void;
  plot: () => void;
  fit: (chosen: boolean) => void;
  closeOutline: () => void;
  help: () => void;
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export function useKeys(deeds: KeyDeeds) {
  useEffect(() => {
    const withCtrl: Record<string, (shift: boolean) => void> = {
      z: (shift) => void step(shift ? "redo" : "undo"),
      y: () => void step("redo"),
      a: deeds.chooseAll,
      c: deeds.copy,
      v: deeds.paste,
      d: deeds.duplicate,
    };
    const ofChosen: Record<string, () => void> = {
      PageUp: () => deeds.climb(-1),
      PageDown: () => deeds.climb(1),
      Delete: deeds.remove,
      Backspace: deeds.remove,
      Home: () => deeds.stack(true),
      End: () => deeds.stack(false),
      i: deeds.pin,
      "1": () => deeds.fit(true),
    };
    const always: Record<string, () => void> = {
      v: () => useDesk.setState((s) => ({ rackOpen: !s.rackOpen })),
      w: () => useDesk.setState((s) => ({ working: !s.working })),
      "0": () => deeds.fit(false),
      p: deeds.plot,
      "?": deeds.help,
    };
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      // A choice that is closed gives the keys back to the sheet.
      if (event.key === "Escape" && target.matches("div[role=combobox][aria-expanded=false]") && !target.closest("[role=dialog]")) target.blur();
      else if (target.closest("input, textarea, [role=dialog], [role=listbox], [role=combobox], [role=presentation]")) return;
      const desk = useDesk.getState();
      const { key } = event;
      const chosen = desk.selected.length > 0;
      const arrow = ARROWS[key];
      if (event.ctrlKey || event.metaKey) {
        const deed = withCtrl[key.toLowerCase()];
        if (!deed) return;
        deed(event.shiftKey);
      } else if (event.altKey) return;
      else if (desk.outline) {
        if (key === "Escape") useDesk.setState({ outline: null });
        else if (key === "Enter") deeds.closeOutline();
        else if (key === "Backspace") useDesk.setState({ outline: { ...desk.outline, points: desk.outline.points.slice(0, -1) } });
        else return;
      } else if (arrow && chosen && !target.closest("nav")) {
        const by = event.shiftKey ? 0.1 : 1;
        deeds.nudge(arrow[0] * by, arrow[1] * by);
      } else if (key === "Enter" && desk.selected.length === 1 && target.closest("#board")) desk.select(desk.selected, true);
      else if (key === "Escape") {
        if (desk.rackOpen) useDesk.setState({ rackOpen: false });
        else desk.select(desk.reachedIn ? desk.selected : null);
      } else if (chosen && ofChosen[key]) ofChosen[key]();
      else if (always[key]) always[key]();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [deeds]);
}
