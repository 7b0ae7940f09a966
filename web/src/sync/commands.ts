/** What people do: changes to rows that can be undone and redone, also after the page was loaded anew. */
import { notify } from "../stores/notices";
import { discard, record, useHistory, type Command } from "./history";
import { inverse, write, type Step } from "./rows";

/** Do something. Whether it went well; what went wrong has been shown. */
export async function commit(project: string, what: string, steps: Step[]): Promise<boolean> {
  if (!steps.length) return true;
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

/** Undo the last command, or redo it. One that cannot be done stays where it is. */
export async function step(way: "undo" | "redo") {
  const { past, future, project } = useHistory.getState();
  const command = (way === "undo" ? past : future).at(-1);
  if (!command) return;
  useHistory.setState(
    way === "undo"
      ? { past: past.slice(0, -1), future: [...future, command] }
      : { past: [...past, command], future: future.slice(0, -1) },
  );
  try {
    await write(project, `${way}: ${command.what}`, way === "undo" ? inverse(command.steps) : command.steps);
    notify(`${way === "undo" ? "Undone" : "Redone"}: ${command.what}`);
  } catch {
    useHistory.setState({ past, future }); // what went wrong has been shown
  }
}
