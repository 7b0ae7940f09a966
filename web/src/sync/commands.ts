/** What people do: changes to rows that can be undone and redone, also after the page was loaded anew. */
import { discard, record, useHistory, type Command } from "./history";
import { doneAt, type Place } from "./doneAt";
import { notify } from "../stores/notices";
import { refused } from "./roles";
import { inverse, rows, write, type Step } from "./rows";

/** Do something. Whether it went well; what went wrong has been shown. */
export async function commit(project: string, what: string, steps: Step[]): Promise<boolean> {
  if (!steps.length) return true;
  const why = refused(project, steps);
  if (why) {
    notify(why, true);
    return false;
  }
  const command: Command = { what, steps };
  record(command);
  try {
    await write(project, what, steps);
    return true;
  } catch {
    discard(command);
    return false;
  }
}

export interface Stepped {
  way: "undo" | "redo";
  what: string;
  /** Where it is seen. */
  at: Place | null;
}

/**
 * Undo the last command, or redo it. One that cannot be done stays where it is, and null is given.
 *
 * @param open the sheet or view that is open.
 */
export async function step(way: Stepped["way"], open = ""): Promise<Stepped | null> {
  const { past, future, project } = useHistory.getState();
  const command = (way === "undo" ? past : future).at(-1);
  if (!command) return null;
  useHistory.setState(
    way === "undo"
      ? { past: past.slice(0, -1), future: [...future, command] }
      : { past: [...past, command], future: future.slice(0, -1) },
  );
  try {
    const steps = way === "undo" ? inverse(command.steps) : command.steps;
    await write(project, `${way}: ${command.what}`, steps);
    const at = doneAt(steps, (kind) => rows(kind, project) as { id: string }[], open);
    return { way, what: command.what, at };
  } catch {
    useHistory.setState({ past, future }); // what went wrong has been shown
    return null;
  }
}
