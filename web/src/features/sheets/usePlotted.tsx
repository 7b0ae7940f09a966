/** Plotting from the Sheets station: sheets are plotted as they are, and looked at when they are done. */
import { lazy, Suspense, useCallback, useEffect, useState } from "react";
import { api, data } from "../../api/client";
import { usePlot } from "../../api/plots";
import { notifyError } from "../../stores/notices";
import { afterWrites } from "../../sync/rows";

// Reading PDFs takes a large library; it is fetched when there is one to read.
const preview = () => import("./PlotPreview");
const PlotPreview = lazy(() => preview().then((m) => ({ default: m.PlotPreview })));
/** How long after a station is entered what it may want is fetched; milliseconds. */
const LATER = 1_500;

/** How sheets are plotted, all where none are named; and what is shown of the last plot. */
export function usePlotted(project: string) {
  const [plotting, setPlotting] = useState<string | null>(null);
  const { data: plotted } = usePlot(plotting);
  useEffect(() => {
    // Without a connection it is fetched when it is wanted.
    const timer = window.setTimeout(() => void preview().catch(() => undefined), LATER);
    return () => window.clearTimeout(timer);
  }, []);
  const plot = useCallback(
    async (sheets?: string[]) => {
      try {
        const body = { project, sheets, settings: null, form: "pdf" as const };
        setPlotting((await afterWrites(() => data(api.POST("/api/plots/", { body })))).id);
      } catch (error) {
        notifyError(error);
      }
    },
    [project],
  );
  const shown = (
    <Suspense>
      {plotting && plotted && <PlotPreview plot={plotted} onClose={() => setPlotting(null)} />}
    </Suspense>
  );
  return { plot, shown };
}
