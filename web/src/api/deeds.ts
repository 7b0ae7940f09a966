/** What people do: changes to rows that can be taken back and done again, also after the page was loaded anew. */
import { useDesk, type Deed } from "../board/desk";
import { inverse, write, type Step } from "./rows";

/** Do something. Whether it went well; what went wrong has been told. */
export async function commit(project: string, what: string, steps: Step[]): Promise<boolean> {
  if (!steps.length) return true;
  const deed: Deed = { what, steps };
  useDesk.getState().done(deed);
  try {
    await write(project, steps);
    return true;
  } catch {
    useDesk.getState().undone(deed);
    return false;
  }
}

/** Take back the last deed, or do it again. One that cannot be done stays where it is. */
export async function step(way: "undo" | "redo") {
  const { past, future, project, say } = useDesk.getState();
  const deed = (way === "undo" ? past : future).at(-1);
  if (!deed) return;
  useDesk.setState(
    way === "undo"
      ? { past: past.slice(0, -1), future: [...future, deed] }
      : { past: [...past, deed], future: future.slice(0, -1) },
  );
  try {
    await write(project, way === "undo" ? inverse(deed.steps) : deed.steps);
    say(`${way === "undo" ? "Taken back" : "Done again"}: ${deed.what}`);
  } catch {
    useDesk.setState({ past, future }); // what went wrong has been told
  }
}
