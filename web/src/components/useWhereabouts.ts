import { useEffect } from "react";
import { useSelection } from "../stores/selection";
import { beAt } from "../sync/listening";

/** As many things that one holds are shown to others. */
const MAX_HELD = 50;
/** What is held by a name, such as a part of a template, is nobody else's. */
const isId = (name: string) => /^[0-9a-f-]{36}$/.test(name);

/** Tell others in the project where one is: at which station, at which sheet or view, and holding what. */
export function useWhereabouts(project: string, station: string, subject = "") {
  const selected = useSelection((s) => s.selected);
  useEffect(() => {
    const holding = station === "sheets" ? selected.filter(isId).slice(0, MAX_HELD) : [];
    beAt(project, { station, subject, holding });
  }, [project, station, subject, selected]);
}
