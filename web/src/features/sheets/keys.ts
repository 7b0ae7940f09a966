/** The keys of the Sheets station, and what the help card says of them. */
import { useEffect } from "react";
import { annotate, useAnnotating, type Tool } from "../../stores/annotating";
import { useBoard } from "../../stores/board";
import { select, useSelection } from "../../stores/selection";
import { useGesture } from "../../stores/gesture";
import { touchUp, useTouching } from "../../stores/touching";
import type { Annotate } from "./annotate/useAnnotate";
import { HIDE, type TouchUps } from "./touchup/useTouchUp";
import { t } from "../../words/words";

export const KEYS: readonly (readonly [string, string])[] = [
  [t("Arrows"), t("nudge by 1 mm what is selected, or the contents that are moved")],
  ["Shift + arrows", t("nudge by 0.1 mm")],
  [t("Alt while dragging"), t("no snapping")],
  [t("Shift + click, drag across the paper"), t("select several")],
  ["Ctrl + A", t("select all viewports of the sheet")],
  [t("Enter, double click"), t("move contents; then a double click brings what is under it to the middle")],
  ["Escape", t("done with contents; cancel a drag; select nothing")],
  ["E", t("touch up what is seen through a viewport: click lines; Delete hides them, Escape ends")],
  [t("Page Up, Page Down"), t("next larger, next smaller scale of the ladder")],
  ["I", t("pin, unpin")],
  [t("Home, End"), t("to the front, to the back")],
  [t("Ctrl + C, Ctrl + V"), t("copy, paste on this sheet or another")],
  ["Ctrl + D", "duplicate"],
  ["Delete", t("delete what is selected")],
  ["D, M, T, N, L, G", t("a dimension, measure, note, numbered note, spot level, tag")],
  ["S, B, F, C, Y, U", t("a schedule, table, shape, cloud, symbol, picture; Escape puts it away")],
  [t("Ctrl + G, Ctrl + Shift + G"), t("group, ungroup annotation")],
  ["Ctrl + F", t("find and replace in all annotation")],
  ["V", t("the cards of the saved views")],
  ["0, 1", t("the whole sheet, what is selected")],
  [t("Wheel, middle button"), t("zoom and move the board; never a drawing")],
  ["W", t("working colours or as plotted, on the board")],
  ["P", t("plot this sheet")],
  [t("Ctrl + Z, Ctrl + Shift + Z"), t("undo, redo")],
  ["Ctrl + K", t("go to any sheet, view, station or command by its name")],
  [t("Right click"), t("what can be done to what is under the pointer")],
  ["?", t("this card")],
];

export interface KeyCommands {
  nudge: (dx: number, dy: number) => void;
  stepScale: (rungs: number) => void;
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
  /** Annotation that is chosen, together from now on or no more. */
  group?: (together: boolean) => void;
  find?: () => void;
  help: () => void;
  /** What the keys do while something is annotated; nothing where that cannot be done. */
  annotating?: Annotate;
  touchUps?: TouchUps;
}

const TOOL_KEYS: readonly (readonly [string, Tool])[] = [
  ["d", "dimension"],
  ["m", "measure"],
  ["t", "note"],
  ["n", "numbered"],
  ["l", "level"],
  ["g", "tag"],
  ["s", "schedule"],
  ["b", "table"],
  ["f", "shape"],
  ["c", "cloud"],
  ["y", "symbol"],
  ["u", "image"],
];

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export function useKeys(commands: KeyCommands) {
  useEffect(() => {
    const withCtrl: Record<string, (shift: boolean) => void> = {
      a: commands.chooseAll,
      c: commands.copy,
      v: commands.paste,
      d: commands.duplicate,
      g: (shift) => commands.group?.(!shift),
      f: () => commands.find?.(),
    };
    const ofChosen: Record<string, () => void> = {
      PageUp: () => commands.stepScale(-1),
      PageDown: () => commands.stepScale(1),
      Delete: commands.remove,
      Backspace: commands.remove,
      Home: () => commands.stack(true),
      End: () => commands.stack(false),
      i: commands.pin,
      e: () => commands.touchUps?.begin(useSelection.getState().selected),
      "1": () => commands.fit(true),
    };
    const always: Record<string, () => void> = {
      v: () => useBoard.setState((s) => ({ rackOpen: !s.rackOpen })),
      ...(commands.annotating && {
        ...Object.fromEntries(TOOL_KEYS.map(([pressed, tool]) => [pressed, () => annotate(tool)])),
      }),
      w: () => useBoard.setState((s) => ({ workingColours: !s.workingColours })),
      "0": () => commands.fit(false),
      p: commands.plot,
      "?": commands.help,
    };
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      // A choice that is closed gives the keys back to the sheet.
      if (
        event.key === "Escape" &&
        target.matches("div[role=combobox][aria-expanded=false]") &&
        !target.closest("[role=dialog]")
      )
        target.blur();
      else if (
        target.closest("input, textarea, [role=dialog], [role=listbox], [role=combobox], [role=presentation]")
      )
        return;
      const { selected, movingContents } = useSelection.getState();
      const { outline } = useGesture.getState();
      const { key } = event;
      const chosen = selected.length > 0;
      const arrow = ARROWS[key];
      if (event.ctrlKey || event.metaKey) {
        const command = withCtrl[key.toLowerCase()];
        if (!command) return;
        command(event.shiftKey);
      } else if (event.altKey) return;
      else if (outline) {
        if (key === "Escape") useGesture.setState({ outline: null });
        else if (key === "Enter") commands.closeOutline();
        else if (key === "Backspace")
          useGesture.setState({ outline: { ...outline, points: outline.points.slice(0, -1) } });
        else return;
      } else if (useTouching.getState().viewport && commands.touchUps) {
        const { cancel, apply } = commands.touchUps;
        const hide = () => void apply(HIDE);
        const command = { Escape: cancel, Enter: () => touchUp(null), Delete: hide, Backspace: hide }[key];
        if (!(command ?? always[key]) || TOOL_KEYS.some(([pressed]) => pressed === key)) return;
        (command ?? always[key])?.();
      } else if (useAnnotating.getState().tool && commands.annotating) {
        const { done, cancel, back } = commands.annotating;
        const command = { Enter: done, Escape: cancel, Backspace: back }[key] ?? always[key];
        if (!command) return;
        command();
      } else if (arrow && chosen && !target.closest("nav")) {
        const by = event.shiftKey ? 0.1 : 1;
        commands.nudge(arrow[0] * by, arrow[1] * by);
      } else if (key === "Enter" && selected.length === 1 && target.closest("#board")) select(selected, true);
      else if (key === "Escape") {
        if (useBoard.getState().rackOpen) useBoard.setState({ rackOpen: false });
        else select(movingContents ? selected : null);
      } else if (chosen && ofChosen[key]) ofChosen[key]();
      else if (always[key]) always[key]();
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [commands]);
}
