/** What stands on a sheet, and what goes with a viewport: its annotation, and its own touch-ups. */
import type { Annotation, Viewport } from "../../api/client";
import { deleting, making, newId, rows, type Step } from "../../sync/rows";

/** A scale comes with its ratio, so that the board can show it before the server has answered. */
export type ViewportChange = Partial<Omit<Viewport, "id" | "version">>;

/** What a copy of a viewport takes with it. */
const copyOf = ({ version: _, ...row }: Viewport, given: ViewportChange) =>
  making("viewports", { ...row, ...given, id: newId(), pinned: false });

/** The copy of annotation that is attached through a viewport, for the copy of that. */
export const copyOfPiece = ({ version: _, ...row }: Annotation, given: Partial<Annotation>) =>
  making("annotations", { ...row, ...given, id: newId() });

/** What stands on the sheets of a project, as steps that copy or delete it. */
export function contentsOf(project: string) {
  const on = (sheet: string) => rows("viewports", project).filter((v) => v.sheet === sheet);
  const inOrder = (sheet: string) => on(sheet).toSorted((a, b) => a.position - b.position);

  /** What is annotated through a viewport, or on the bare sheet. */
  const through = (viewport: string) => rows("annotations", project).filter((p) => p.viewport === viewport);
  const onPaperOf = (sheet: string) =>
    rows("annotations", project).filter((p) => p.sheet === sheet && !p.viewport);
  /** What is drawn otherwise in this viewport alone. */
  const touchedIn = (viewport: string) =>
    rows("touch_ups", project).filter((each) => each.viewport === viewport);
  /** A copy of a viewport, with what is annotated through it and drawn otherwise in it. */
  const copiesOf = (v: Viewport, given: ViewportChange): Step[] => {
    const made = copyOf(v, given);
    const sheet = given.sheet ?? v.sheet;
    return [
      made,
      ...through(v.id).map((p) => copyOfPiece(p, { sheet, viewport: made.id })),
      ...touchedIn(v.id).map(({ version: _, ...row }) =>
        making("touch_ups", { ...row, id: newId(), viewport: made.id }),
      ),
    ];
  };
  const deletingAll = (viewports: readonly Viewport[]): Step[] =>
    viewports.flatMap((v) => [
      ...through(v.id).map((p) => deleting("annotations", p)),
      ...touchedIn(v.id).map((each) => deleting("touch_ups", each)),
      deleting("viewports", v),
    ]);

  return { on, inOrder, onPaperOf, copiesOf, deletingAll };
}
