/** What clicks and keys do while a drawing is touched up. Each touch-up can be undone. */
import { useMemo } from "react";
import type { DisplayList, TouchUp, TouchUpChange, TouchUpChoice, Viewport } from "../../../api/client";
import { queryClient } from "../../../api/queryClient";
import { geometryOf, holds, inView, outlineOf, type Point } from "../../../canvas/geometry";
import { pictures } from "../../../canvas/pictures";
import { redrawnIn } from "../../../canvas/redrawn";
import { useBoard } from "../../../stores/board";
import { notify } from "../../../stores/notices";
import { chooseNothing, touchUp, useTouching, type Chosen } from "../../../stores/touching";
import { commit } from "../../../sync/commands";
import { deleting, making, newId, rows } from "../../../sync/rows";
import { changeWords, choiceOf, extension, stretch } from "./choices";
import { t } from "../../../words/words";

/** How near to a line the pointer picks it; pixels. */
const REACH = 8;
export const NO_STROKE = {} as TouchUpChange["stroke"];
export const HIDE: TouchUpChange = { hidden: true, stroke: NO_STROKE };

interface Given {
  project: string;
  sheet: string | undefined;
  on: readonly Viewport[];
}

export function useTouchUp({ project, sheet, on }: Given) {
  return useMemo(() => {
    const redrawnNow = (viewport: string) =>
      redrawnIn(queryClient.getQueryData<DisplayList>(["display", sheet]), viewport);
    const current = () => on.find((v) => v.id === useTouching.getState().viewport);

    /** What lies under a place of the sheet, seen through the viewport. */
    async function pick(place: Point) {
      const viewport = current();
      if (!viewport?.linework) return null;
      // What lies beyond the outline is not seen.
      if (!holds(outlineOf(geometryOf(viewport)), place)) return null;
      const at = inView(geometryOf(viewport), place);
      const reach = REACH / ((useBoard.getState().camera?.scale ?? 1) * viewport.ratio);
      const picked = await pictures.pickAt(viewport.linework, at, reach, redrawnNow(viewport.id));
      return { at, reach, viewport, picked };
    }

    let asked = 0;
    async function hover(place: Point) {
      const number = ++asked;
      const found = await pick(place);
      if (number === asked) useTouching.setState({ hover: found?.picked ?? null });
    }

    async function click(place: Point, more: boolean) {
      const { mode, begun, chosen } = useTouching.getState();
      const found = await pick(place);
      if (!found) return more ? undefined : chooseNothing();
      const { picked, at, reach, viewport } = found;
      if (mode === "part") return part(at, reach, viewport);
      if (!picked) return more ? undefined : chooseNothing();
      if (mode === "extend") {
        if (picked.material !== null) return;
        if (!begun?.picked) return useTouching.setState({ begun: { at, picked } });
        const choice = extension(begun.picked, begun.at, picked);
        chooseNothing();
        if (!choice) return notify(t("Only straight lines can be drawn out to straight lines."), true);
        return add([choice], { hidden: false, stroke: NO_STROKE }, t("extend a line"));
      }
      const one: Chosen = { choice: choiceOf(picked), lines: [picked.points], picked };
      const key = JSON.stringify(one.choice);
      const others = chosen.filter((c) => JSON.stringify(c.choice) !== key);
      const wasChosen = others.length < chosen.length;
      useTouching.setState({ chosen: more ? (wasChosen ? others : [...chosen, one]) : [one] });
    }

    /** A part of a line: from one click to the other, each at a corner or crossing that is near. */
    async function part(clicked: Point, reach: number, viewport: Viewport) {
      const { begun } = useTouching.getState();
      const snap = await pictures.snapAt(viewport.linework ?? "", clicked, reach, redrawnNow(viewport.id));
      const at: Point = snap ? snap.at : clicked;
      if (!begun) return useTouching.setState({ begun: { at, picked: null }, chosen: [] });
      const middle: Point = [(begun.at[0] + at[0]) / 2, (begun.at[1] + at[1]) / 2];
      const between = await pictures.pickAt(viewport.linework ?? "", middle, reach / 2, []);
      useTouching.setState({ begun: null });
      if (!between || between.material !== null || between.round)
        return notify(t("No straight line runs from the first click to the second."), true);
      const choice = stretch(between.element, begun.at, at);
      const picked = { ...between, points: [begun.at, at] };
      useTouching.setState({ chosen: [{ choice, lines: [[begun.at, at]], picked }] });
    }

    async function add(choices: readonly TouchUpChoice[], change: TouchUpChange, what: string) {
      const viewport = current();
      if (!viewport) return false;
      let position = Math.max(-1, ...rows("touch_ups", project).map((each) => each.position));
      const steps = choices.map((choice) =>
        making("touch_ups", {
          id: newId(),
          project,
          view: viewport.view,
          viewport: useTouching.getState().inAll ? null : viewport.id,
          position: ++position,
          spec: { choice, change, view_kind: "" },
        }),
      );
      return commit(project, what, steps);
    }

    /** Draw what is chosen otherwise. */
    async function apply(change: TouchUpChange) {
      const { chosen } = useTouching.getState();
      if (!chosen.length) return;
      const what = change.hidden
        ? chosen.length === 1
          ? t("hide a line")
          : t("hide {count} lines", { count: chosen.length })
        : t("lines {change}", { change: changeWords(change) });
      chooseNothing();
      await add(
        chosen.map((c) => c.choice),
        change,
        what,
      );
    }

    /** Choose what is like the first that is chosen. */
    async function widen(choice: TouchUpChoice) {
      const { chosen } = useTouching.getState();
      const viewport = current();
      const [first] = chosen;
      if (!first || !viewport?.linework) return;
      const lines = choice.kind === "alike" ? await pictures.alike(viewport.linework, choice) : first.lines;
      useTouching.setState({ chosen: [{ ...first, choice, lines }] });
    }

    const remove = (touchUps: readonly TouchUp[]) =>
      touchUps.length &&
      commit(
        project,
        touchUps.length === 1
          ? t("delete a touch-up")
          : t("delete {count} touch-ups", { count: touchUps.length }),
        touchUps.map((each) => deleting("touch_ups", each)),
      );

    /** Touch up what is seen through the one viewport that is selected. */
    function begin(selected: readonly string[]) {
      const viewport = on.find((v) => v.id === selected[0]);
      if (viewport?.linework && selected.length === 1) touchUp(viewport.id);
    }
    /** Escape: what is chosen is let be; with nothing chosen it is ended. */
    const cancel = () => {
      const { chosen, begun } = useTouching.getState();
      if (chosen.length || begun) chooseNothing();
      else touchUp(null);
    };
    return { hover, click, apply, widen, remove, begin, cancel };
  }, [project, sheet, on]);
}

export type TouchUps = ReturnType<typeof useTouchUp>;
