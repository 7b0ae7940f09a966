/** Undo and redo, by keys or buttons: what was undone is said and, where it is not in sight, shown. */
import { useCallback, useEffect } from "react";
import { useLocation, useNavigate } from "react-router-dom";
import { notify } from "../stores/notices";
import { step, type Stepped } from "../sync/commands";
import type { Place } from "../sync/doneAt";
import { rows } from "../sync/rows";
import { t } from "../words/words";

/** Where the keys are somebody else's. */
const TAKEN =
  "input, textarea, [role=dialog], [role=listbox], [role=menu], [role=combobox][aria-expanded=true]";
const WORDS: Record<Place["station"], string> = {
  sheets: "",
  views: t(" in Views"),
  check: t(" in Check"),
  issue: t(" in Issue"),
};

function wordsOf(project: string, { station, subject }: Place): string {
  const sheet = rows("sheets", project).find((s) => s.id === subject);
  const view = rows("views", project).find((v) => v.id === subject);
  return sheet
    ? t(" on sheet {number}", { number: sheet.number })
    : view
      ? t(" in the view “{name}”", { name: view.name })
      : WORDS[station];
}

/**
 * What is in sight is left alone. Another sheet is gone to from a sheet; to another station one is not sent,
 * but it is offered. What stands in a view is seen on sheets too.
 */
function wayTo(pathname: string, project: string, at: Place | null): "in sight" | "gone to" | "offered" {
  if (!at) return "in sight";
  const [here, open = ""] = pathname.slice(`/projects/${project}/`.length).split("/");
  if (here !== at.station) return here === "sheets" && at.station === "views" ? "in sight" : "offered";
  if (!at.subject || at.subject === open || (here === "views" && !open)) return "in sight";
  return "gone to";
}

export type Undo = (way: Stepped["way"]) => void;

export function useUndo(project: string): Undo {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const undo = useCallback<Undo>(
    (way) =>
      void step(way, pathname.split("/").at(-1) ?? "").then((done) => {
        if (!done) return;
        const { what, at } = done;
        const to = at && `/projects/${project}/${at.station}${at.subject && `/${at.subject}`}`;
        const show = () => to && void navigate(to);
        const reached = wayTo(pathname, project, at);
        if (reached === "gone to") show();
        notify(
          `${way === "undo" ? t("Undone") : t("Redone")}: ${what}${at ? wordsOf(project, at) : ""}`,
          false,
          reached === "offered" ? { label: t("Show"), run: show } : undefined,
        );
      }),
    [navigate, pathname, project],
  );
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || event.altKey || !["z", "y"].includes(key)) return;
      if ((event.target as HTMLElement).closest(TAKEN)) return;
      event.preventDefault();
      undo(key === "y" || event.shiftKey ? "redo" : "undo");
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [undo]);
  return undo;
}
