/** What the keys and the ledge do to what is chosen on a sheet. */
import { useMemo } from "react";
import type { Rung, Sheet, Viewport } from "../../api/client";
import { rows } from "../../sync/rows";
import { fitTo } from "../../stores/board";
import {
  boxAround,
  crosses,
  geometryOf,
  moved,
  outlined,
  shifted,
  type Geometry,
  type Point,
} from "../../canvas/geometry";
import type { AnnotationEdits } from "./annotate/annotationCommands";
import type { Edits } from "./sheetCommands";
import type { KeyCommands } from "./keys";
import { useBoard } from "../../stores/board";
import { select, useSelection } from "../../stores/selection";
import { useGesture } from "../../stores/gesture";
import { useClipboard } from "../../stores/clipboard";
import { notify } from "../../stores/notices";
import { t } from "../../words/words";

interface Compose extends KeyCommands {
  outline: (at: Point, close: boolean) => void;
}

interface Given {
  sheet: Sheet | undefined;
  on: Viewport[];
  ladder: readonly Rung[];
  edits: Edits;
  annotation: AnnotationEdits;
  onPlot: () => void;
  /** An outline was drawn that is no viewport's yet. */
  onOutlined: (points: readonly Point[]) => void;
}

/** A copy pasted on its own sheet lies this far beside the first; mm. */
const BESIDE = 10;

export function useCompose({ sheet, on, ladder, edits, annotation, onPlot, onOutlined }: Given): Compose {
  return useMemo(() => {
    // As they are now, not as they were painted last: keys come faster than pictures.
    const chosen = () => {
      const there = rows("viewports", sheet?.project ?? "");
      return useSelection
        .getState()
        .selected.flatMap((id) => there.find((v) => v.id === id && v.sheet === sheet?.id) ?? []);
    };
    const pieces = () => {
      const { selected } = useSelection.getState();
      return rows("annotations", sheet?.project ?? "").filter((p) => selected.includes(p.id));
    };
    const loose = () => chosen().filter((v) => !v.pinned);
    const reshape = (change: (g: Geometry) => Geometry, what: string) => {
      const changed = new Map(loose().map((v) => [v.id, change(geometryOf(v))]));
      if (changed.size) void edits.reshape(changed, what);
    };

    function closeOutline() {
      const { outline } = useGesture.getState();
      if (!outline) return;
      if (outline.points.length < 3)
        notify(t("An outline has three corners or more. Click where they lie; Enter closes it."), true);
      else if (crosses(outline.points))
        notify(t("This outline crosses itself. Remove corners with Backspace."), true);
      else {
        useGesture.setState({ outline: null });
        const of = on.find((v) => v.id === outline.of);
        if (of)
          void edits.reshape(
            new Map([[of.id, outlined(geometryOf(of), outline.points)]]),
            t("draw the outline of a viewport"),
          );
        else onOutlined(outline.points);
      }
    }

    return {
      nudge: (dx, dy) => {
        if (pieces().length) void annotation.nudge(pieces(), dx, dy);
        return useSelection.getState().movingContents
          ? reshape((g) => shifted(g, dx, dy), t("nudge the contents"))
          : reshape(
              (g) => moved(g, dx, dy),
              chosen().length > 1 ? t("nudge viewports") : t("nudge a viewport"),
            );
      },
      stepScale: (rungs) => {
        for (const viewport of loose().slice(0, 1)) {
          const own = ladder.filter((r) => r.ladder === (viewport.scale.includes("=") ? "feet" : "metric"));
          // A scale between two rungs goes to the next one either way.
          const at = own.findIndex((r) => r.ratio <= viewport.ratio * (1 + 1e-9));
          const exact = Math.abs((own[at]?.ratio ?? 0) / viewport.ratio - 1) < 1e-9;
          const rung = own[(at < 0 ? own.length : at) + (rungs > 0 && !exact ? rungs - 1 : rungs)];
          if (rung)
            void edits.change(
              [viewport],
              { scale: rung.scale, ratio: rung.ratio },
              t("scale {scale}", { scale: rung.scale }),
            );
        }
      },
      remove: () => {
        if (pieces().length) annotation.remove(pieces());
        if (chosen().length) void edits.remove(chosen());
      },
      copy: () => useClipboard.setState({ viewports: chosen(), pieces: pieces() }),
      paste: () => {
        const { viewports: copied, pieces: written } = useClipboard.getState();
        if (sheet && written.length) annotation.copyTo(written, [sheet.id]);
        if (!sheet || !copied.length) return;
        const here = copied.some((v) => v.sheet === sheet.id);
        void edits.copy(
          copied,
          sheet.id,
          here ? BESIDE : 0,
          copied.length === 1
            ? t("paste a viewport")
            : t("paste {count} viewports", { count: copied.length }),
        );
      },
      duplicate: () => {
        if (sheet && chosen().length)
          void edits.copy(
            chosen(),
            sheet.id,
            BESIDE,
            chosen().length === 1
              ? t("duplicate a viewport")
              : t("duplicate {count} viewports", { count: chosen().length }),
          );
      },
      chooseAll: () => select(on.map((v) => v.id)),
      pin: () => {
        const pinned = !chosen().every((v) => v.pinned);
        void edits.change(chosen(), { pinned }, pinned ? "pin" : "unpin");
      },
      stack: (front) => {
        if (pieces().length) void annotation.order(pieces(), front);
        if (chosen().length) void edits.stack(chosen(), front);
      },
      group: (together) => pieces().length > 1 && void annotation.group(pieces(), together),
      plot: onPlot,
      fit: (wanted) => fitTo(wanted && chosen().length ? boxAround(chosen()) : undefined),
      closeOutline,
      help: () => useBoard.setState({ helpOpen: true }),
      outline: (at, close) => {
        const { outline } = useGesture.getState();
        if (close) closeOutline();
        else if (outline) useGesture.setState({ outline: { ...outline, points: [...outline.points, at] } });
      },
    };
  }, [sheet, on, ladder, edits, annotation, onPlot, onOutlined]);
}
