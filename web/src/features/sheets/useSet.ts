/** The set of sheets and the one of them that is on the board, with what stands on it. */
import { useCallback, useMemo, useState } from "react";
import type { View, Viewport } from "../../api/client";
import { useAnnotations, useTouchUps } from "../../api/annotations";
import { useModelVersions } from "../../api/buildings";
import { openOf, useDisplay, useSheets, useViewports } from "../../api/sheets";
import { useViews } from "../../api/views";
import { geometryOf } from "../../canvas/geometry";
import type { Placed } from "../../canvas/snapping";

const NOTHING: never[] = [];

/**
 * Whether what is painted is there, or cannot be had: the sheets, what stands on them, and the one that is
 * open. Nothing else is asked for before.
 */
export function useArrived(project: string, sheetId: string | undefined): boolean {
  const { data: sheets, isPending: listing } = useSheets(project);
  const { isPending: placing } = useViewports(project);
  const sheet = openOf(sheets ?? NOTHING, sheetId);
  const { isPending: composing } = useDisplay(sheet?.version ? sheet.id : "");
  return !listing && !placing && !(sheet?.version && composing);
}

export function useSet(project: string, sheetId: string | undefined) {
  const { data: unordered = NOTHING, isSuccess: listed } = useSheets(project);
  const { data: viewports = NOTHING, isSuccess: placed } = useViewports(project);
  const { data: views = NOTHING } = useViews(project);
  const { data: pieces = NOTHING } = useAnnotations(project);
  const { data: touchUps = NOTHING } = useTouchUps(project);
  const { data: versions = NOTHING } = useModelVersions(project);
  const sheets = useMemo(() => unordered.toSorted((a, b) => a.position - b.position), [unordered]);
  const sheet = openOf(sheets, sheetId);
  const composed = useDisplay(sheet?.version ? sheet.id : "");
  // While it is asked for again, a sheet that could not be composed is none that is on its way.
  const [refused, setRefused] = useState({ sheet: "", why: "" });
  const why = composed.error?.message;
  if (sheet && why && (refused.sheet !== sheet.id || refused.why !== why))
    setRefused({ sheet: sheet.id, why });
  const isRefused = refused.sheet === sheet?.id && (!composed.data || composed.isPlaceholderData);
  const display = isRefused ? undefined : composed.data;
  const problem = isRefused ? refused.why : undefined;
  /** The viewports of the sheet, the lowest first. */
  const on = useMemo(
    () => viewports.filter((v) => v.sheet === sheet?.id).toSorted((a, b) => a.position - b.position),
    [viewports, sheet?.id],
  );
  const viewOf = useCallback(
    (id: string | undefined): View | undefined => views.find((v) => v.id === id),
    [views],
  );
  /** A viewport as it is snapped to. */
  const asPlaced = useCallback(
    (v: Viewport): Placed => ({
      id: v.id,
      name: viewOf(v.view)?.name ?? "",
      geometry: geometryOf(v),
      axes: viewOf(v.view)?.spec.kind === "perspective" ? null : v.axes,
    }),
    [viewOf],
  );
  /** The viewport in which a view stands first in the register. */
  const firstOf = useCallback(
    (view: string) =>
      sheets.flatMap((s) => viewports.filter((v) => v.sheet === s.id && v.view === view)).at(0),
    [sheets, viewports],
  );
  const version = versions[0];
  return useMemo(
    () => ({
      project,
      sheets,
      viewports,
      views,
      /** All annotation of the project. */
      pieces,
      /** All that is drawn otherwise in its views. */
      touchUps,
      version,
      sheet,
      display,
      /** Why it cannot be composed. */
      problem,
      on,
      viewOf,
      asPlaced,
      firstOf,
      listed,
      ready: listed && placed,
    }),
    [
      project,
      sheets,
      viewports,
      views,
      pieces,
      touchUps,
      version,
      sheet,
      display,
      problem,
      on,
      viewOf,
      asPlaced,
      firstOf,
      listed,
      placed,
    ],
  );
}

export type SheetSet = ReturnType<typeof useSet>;
