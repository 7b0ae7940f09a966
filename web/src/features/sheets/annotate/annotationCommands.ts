/** Changes to annotation: shown at once, written in order, and able to be undone. */
import { useMemo } from "react";
import {
  api,
  data,
  type Annotation,
  type AnnotationSpec,
  type PieceBox,
  type ShapeSpec,
  type SymbolDrawing,
  type TableFile,
  type Viewport,
} from "../../../api/client";
import { geometryOf, outlineOf } from "../../../canvas/geometry";
import { queryClient } from "../../../api/queryClient";
import { notify } from "../../../stores/notices";
import { select } from "../../../stores/selection";
import { commit } from "../../../sync/commands";
import { afterWrites, changing, deleting, making, newId, rows } from "../../../sync/rows";
import {
  KIND_NAMES,
  anchorAt,
  anchorsOf,
  inLook,
  movedBy,
  nudged,
  replacedIn,
  reworded,
  withAnchors,
  wordsOf,
  type Home,
} from "./pieces";
import { offeredPieces } from "./offeredPieces";
import { t } from "../../../words/words";

/** What is done to shapes. */
export interface ShapeEdit {
  edit: "mirror" | "turn" | "offset" | "join" | "break" | "trim" | "extend" | "array";
  at?: [number, number];
  to?: [number, number];
  by?: number;
  count?: number;
}

export type Alignment = "left" | "centre" | "right" | "top" | "middle" | "bottom";

const several = (pieces: readonly Annotation[]) =>
  pieces.length === 1 && pieces[0]
    ? t("a {kind}", { kind: KIND_NAMES[pieces[0].spec.kind] })
    : t("{count} pieces", { count: pieces.length });

export function useAnnotationEdits(project: string) {
  return useMemo(() => {
    const next = () => Math.max(-1, ...rows("annotations", project).map((p) => p.position)) + 1;
    const rowOf = (home: Home, spec: AnnotationSpec, position = next(), group = "") =>
      making("annotations", { id: newId(), project, ...home, position, group, spec });

    /** A new piece; its id, or null where it was refused. */
    async function add(home: Home, spec: AnnotationSpec): Promise<string | null> {
      const step = rowOf(home, spec);
      return (await commit(project, t("add a {kind}", { kind: KIND_NAMES[spec.kind] }), [step]))
        ? step.id
        : null;
    }

    const change = (
      pieces: readonly Annotation[],
      to: (p: Annotation) => Partial<Annotation>,
      what: string,
    ) =>
      commit(
        project,
        what,
        pieces.map((p) => changing("annotations", p, to(p))),
      );

    const changeSpec = <S extends AnnotationSpec>(
      piece: Annotation & { spec: S },
      to: Partial<S>,
      what: string,
    ) => change([piece], (p) => ({ spec: { ...p.spec, ...to } as AnnotationSpec }), what);

    function remove(pieces: readonly Annotation[]) {
      if (!pieces.length) return;
      select(null);
      void commit(
        project,
        t("delete {pieces}", { pieces: several(pieces) }),
        pieces.map((p) => deleting("annotations", p)),
      );
    }

    /** What has changed is right as it is now: from here on that is what to compare with. */
    function accept(piece: Annotation, box: PieceBox) {
      const { spec } = piece;
      if (spec.kind === "table") return refill(piece);
      return change(
        [piece],
        () => ({
          spec: withAnchors(
            spec,
            anchorsOf(spec).map(({ at, element }, k) => anchorAt({ at: box.at[k] ?? at, element })),
          ),
        }),
        t("accept what has changed"),
      );
    }

    /** Take the cells of a table's file as it is now. */
    async function refill(piece: Annotation) {
      const { spec } = piece;
      if (spec.kind !== "table") return;
      const files = queryClient.getQueryData<TableFile[]>(["table-files", project]) ?? [];
      const file = files.find((f) => f.id === spec.file);
      if (!file) return notify(t("The file that this table came from is not here. Bring it in again."), true);
      const to = { ...spec, cells: file.cells, file_hash: file.hash, merged: [] };
      await change([piece], () => ({ spec: to }), t("take a table's file anew"));
    }

    /** Move the words and lines of pieces by a distance, paper mm. */
    const nudge = (pieces: readonly Annotation[], dx: number, dy: number) =>
      change(
        pieces,
        (p) => {
          const viewport = rows("viewports", project).find((v) => v.id === p.viewport);
          return { spec: nudged(p.spec, viewport, [dx, dy]) };
        },
        t("nudge annotation"),
      );

    /** Copies of what stands on a bare sheet, on others in the same places; the rest is left as it is. */
    function copyTo(pieces: readonly Annotation[], sheets: readonly string[]) {
      let position = next();
      const bare = pieces.filter((p) => p.sheet !== null && p.viewport === null);
      const steps = sheets.flatMap((sheet) => {
        const groups = new Map<string, string>();
        return bare.map((p) => {
          if (p.group && !groups.has(p.group)) groups.set(p.group, newId());
          return rowOf({ view: null, sheet, viewport: null }, p.spec, position++, groups.get(p.group) ?? "");
        });
      });
      if (!steps.length) {
        notify(t("What stands on a drawing is seen wherever that is; only what stands beside it is copied."));
        return;
      }
      const where = sheets.length > 1 ? t(" on {count} sheets", { count: sheets.length }) : "";
      void commit(project, t("paste {bare}{where}", { bare: several(bare), where }), steps);
      if (sheets.length === 1) select(steps.map((s) => s.id));
    }

    /** Pieces that are chosen and moved together from now on, or no more. */
    const group = (pieces: readonly Annotation[], together: boolean) => {
      const key = together ? newId() : "";
      return change(pieces, () => ({ group: key }), together ? "group" : "ungroup");
    };

    /** Above all others, or below them. */
    function order(pieces: readonly Annotation[], front: boolean) {
      const all = rows("annotations", project).map((p) => p.position);
      const ordered = pieces.toSorted((a, b) => a.position - b.position);
      if (front) {
        const top = next();
        const at = new Map(ordered.map((p, k) => [p.id, top + k]));
        return change(ordered, (p) => ({ position: at.get(p.id) ?? 0 }), t("to the front"));
      }
      // Positions are not negative: where there is no room below, the rest moves up.
      const low = Math.min(...all);
      const up = Math.max(0, ordered.length - low);
      const rest = up ? rows("annotations", project).filter((p) => !ordered.some((o) => o.id === p.id)) : [];
      const at = new Map(ordered.map((p, k) => [p.id, low + up - ordered.length + k]));
      return change(
        [...ordered, ...rest],
        (p) => ({ position: at.get(p.id) ?? p.position + up }),
        t("to the back"),
      );
    }

    /** Line pieces up by the sides or the middles of what they cover. */
    function align(
      pieces: readonly Annotation[],
      boxes: readonly PieceBox[],
      viewports: readonly Viewport[],
      to: Alignment,
    ) {
      const placed = pieces.flatMap((piece) => {
        const box = boxes.find((b) => b.piece === piece.id);
        return box ? [{ piece, box }] : [];
      });
      const across = to === "left" || to === "centre" || to === "right";
      const share = { left: 0, centre: 0.5, right: 1, bottom: 0, middle: 0.5, top: 1 }[to];
      const at = ({ box: { box } }: (typeof placed)[number]) =>
        across ? box.x + share * box.width : box.y + share * box.height;
      const [first] = placed;
      if (!first) return;
      // The first that was chosen stays where it is.
      const line = at(first);
      const by = new Map(placed.map((each) => [each.piece.id, line - at(each)]));
      void change(
        placed.slice(1).map(({ piece }) => piece),
        (p) => {
          const away = by.get(p.id) ?? 0;
          const box = placed.find(({ piece }) => piece.id === p.id)?.box;
          const viewport = viewports.find((v) => v.id === box?.viewport);
          return box ? { spec: movedBy(p.spec, box, viewport, across ? [away, 0] : [0, away]) } : {};
        },
        t("align annotation"),
      );
    }

    /** Give pieces the look of another. */
    const match = (pieces: readonly Annotation[], look: Readonly<Record<string, unknown>>) =>
      change(pieces, (p) => ({ spec: inLook(p.spec, look) }), t("match the style"));

    /** Replace words wherever they stand in some pieces; how many pieces had them. */
    async function replaceWords(
      pieces: readonly Annotation[],
      wanted: string,
      by: string,
      capitals: boolean,
    ): Promise<number> {
      const to = (words: string) => replacedIn(words, wanted, by, capitals);
      const found = pieces.filter((p) => wordsOf(p.spec).some((words) => to(words) !== words));
      if (found.length)
        await change(
          found,
          (p) => ({ spec: reworded(p.spec, to) }),
          t("replace “{wanted}” by “{by}”", { wanted, by }),
        );
      return found.length;
    }

    /** Mirror, turn, offset, join, break, trim, extend or repeat shapes. */
    async function editShapes(pieces: readonly (Annotation & { spec: ShapeSpec })[], how: ShapeEdit) {
      const [first] = pieces;
      if (!first) return;
      const body = { project, shapes: pieces.map((p) => p.spec), ...how };
      const made = (await afterWrites(() =>
        data(api.POST("/api/annotations/edit-shapes/", { body })),
      )) as unknown as ShapeSpec[];
      const home = { view: first.view, sheet: first.sheet, viewport: first.viewport };
      const top = next();
      // An offset stands beside what it was made from; the rest takes its place.
      const kept = how.edit === "offset" ? [] : pieces;
      const steps = made.map((spec, k) => {
        const there = kept[k];
        return there ? changing("annotations", there, { spec }) : rowOf(home, spec, top + k);
      });
      const over = kept.slice(made.length).map((p) => deleting("annotations", p));
      await commit(project, `${EDITS[how.edit]} ${several(pieces)}`, [...steps, ...over]);
      select(steps.map((s) => s.id));
    }

    /** The outline of a viewport as a closed shape on its sheet. */
    const addOutline = (viewport: Viewport) =>
      add(
        { view: null, sheet: viewport.sheet, viewport: null },
        {
          kind: "shape",
          form: "line",
          points: outlineOf(geometryOf(viewport)).map((at) => anchorAt({ at: [at[0], at[1]], element: "" })),
          closed: true,
          width: 0.25,
          colour: "#1b1f24",
          pattern: "solid",
          fill: "",
          opacity: 100,
          hatch: "",
          spacing: 2,
        },
      ).then((made) => made && select(made));

    /** A symbol of the library that is drawn like some shapes. */
    async function makeSymbol(pieces: readonly (Annotation & { spec: ShapeSpec })[], name: string) {
      const real = pieces.some((p) => p.view !== null || p.viewport !== null);
      const body = { project, name, shapes: pieces.map((p) => p.spec), real };
      const made = await data(api.POST("/api/symbols/from-shapes/", { body }));
      const spec = made.spec as unknown as SymbolDrawing;
      await commit(project, t("make the symbol “{name}”", { name }), [
        making("symbols", { id: newId(), project, name, spec }),
      ]);
    }

    return {
      ...offeredPieces({ project, next, rowOf, add }),
      editShapes,
      addOutline,
      makeSymbol,
      add,
      change,
      changeSpec,
      remove,
      accept,
      nudge,
      copyTo,
      group,
      order,
      align,
      match,
      replaceWords,
    };
  }, [project]);
}

const EDITS: Record<ShapeEdit["edit"], string> = {
  mirror: t("mirror"),
  turn: t("turn"),
  offset: t("offset"),
  join: t("join"),
  break: t("break"),
  trim: t("trim"),
  extend: t("extend"),
  array: t("repeat"),
};

export type AnnotationEdits = ReturnType<typeof useAnnotationEdits>;
