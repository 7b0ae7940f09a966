/** The sheets beside the one on the board are made ready, for whoever turns to them next. */
import { useEffect } from "react";
import { queryClient } from "../../../api/queryClient";
import { displayOf } from "../../../api/sheets";
import { prepare } from "../../../canvas/paint";
import { cameraOf, useBoard } from "../../../stores/board";
import type { SheetSet } from "../useSet";

/** How long the sheet has been painted before; milliseconds. */
const REST = 400;

/** It shows nothing; what watches whether the sheet is painted is this alone. */
export function Neighbours({ set: { sheet, sheets, viewports } }: { set: SheetSet }) {
  const open = sheet?.id;
  const painted = useBoard((s) => s.painted !== null && s.painted === open);
  useEffect(() => {
    if (!painted) return;
    let left = false;
    const makeReady = async (id: string) => {
      const display = await queryClient.ensureQueryData(displayOf(id));
      const { room, workingColours: working } = useBoard.getState();
      if (left || !room.width) return;
      const on = viewports.filter((v) => v.sheet === id);
      prepare(display, on, cameraOf(display, room), room, working);
    };
    const timer = window.setTimeout(() => {
      const at = sheets.findIndex((s) => s.id === open);
      for (const beside of [sheets[at + 1], sheets[at - 1]])
        // One that cannot be had now is asked for when it is opened.
        if (beside?.version) makeReady(beside.id).catch(() => undefined);
    }, REST);
    return () => {
      left = true;
      window.clearTimeout(timer);
    };
  }, [painted, open, sheets, viewports]);
  return null;
}
