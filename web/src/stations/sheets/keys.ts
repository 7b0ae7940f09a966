/** The keys of the Sheets station, and what the help card says of them. */
import { useEffect } from "react";
import { useDesk, step } from "../../board/desk";

export const KEYS: readonly (readonly [string, string])[] = [
  ["Arrows", "nudge the viewport by 1 mm, or what is seen when reached in"],
  ["Shift + arrows", "nudge by 0.1 mm"],
  ["Enter", "reach in"],
  ["Escape", "step out; let go; select nothing"],
  ["Page Up, Page Down", "next larger, next smaller scale of the ladder"],
  ["Delete", "delete the viewport"],
  ["V", "the cards of the saved views"],
  ["0", "the whole sheet"],
  ["P", "plot this sheet"],
  ["Ctrl + Z, Ctrl + Shift + Z", "take back, do again"],
  ["?", "this card"],
];

export interface KeyDeeds {
  nudge: (dx: number, dy: number) => void;
  climb: (rungs: number) => void;
  remove: () => void;
  plot: () => void;
  fit: () => void;
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
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const command = event.ctrlKey || event.metaKey;
      if (target.closest("input, textarea, [role=dialog], [role=listbox], [role=combobox]")) return;
      const desk = useDesk.getState();
      const key = event.key;
      const arrow = ARROWS[key];
      if (command && key.toLowerCase() === "z") void step(event.shiftKey ? "redo" : "undo");
      else if (command && key.toLowerCase() === "y") void step("redo");
      else if (command || event.altKey) return;
      else if (arrow && desk.selected) {
        const by = event.shiftKey ? 0.1 : 1;
        deeds.nudge(arrow[0] * by, arrow[1] * by);
      } else if (key === "Enter" && desk.selected && target.closest("#board")) desk.select(desk.selected, true);
      else if (key === "Escape") {
        if (desk.rackOpen) useDesk.setState({ rackOpen: false });
        else desk.select(desk.reachedIn ? desk.selected : null);
      } else if (key === "PageUp" && desk.selected) deeds.climb(-1);
      else if (key === "PageDown" && desk.selected) deeds.climb(1);
      else if ((key === "Delete" || key === "Backspace") && desk.selected) deeds.remove();
      else if (key === "v") useDesk.setState({ rackOpen: !desk.rackOpen });
      else if (key === "0") deeds.fit();
      else if (key === "p") deeds.plot();
      else if (key === "?") deeds.help();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [deeds]);
}
