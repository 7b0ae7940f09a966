/** The Sheets station: register, board, ledge and rack. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { lazy, Suspense, useCallback, useEffect, useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router-dom";
import { api, data, type Project, type Sheet, type View } from "../../api/client";
import { useDisplay, useJobs, useLadder, useModelVersions, useSheets, useViewports, useViews } from "../../api/queries";
import { Board, FIT } from "../../board/Board";
import { useDesk } from "../../board/desk";
import { geometryOf, moved, rungFor, shifted, toPaper, type Extents, type Look } from "../../board/geometry";
import { useLinework } from "../../board/linework";
import { ViewportFrame } from "../../board/ViewportFrame";
import { colours } from "../../theme/theme";
import { useEdits } from "./edits";
import { HelpCard } from "./HelpCard";
import { useKeys } from "./keys";
import { ProjectFacts } from "./ProjectFacts";
import { Rack } from "./Rack";
import { Register } from "./Register";
import { SheetLedge } from "./SheetLedge";
import { ViewportLedge } from "./ViewportLedge";

// Reading PDFs takes a large library; it is fetched when there is one to read.
const PlotPreview = lazy(() => import("./PlotPreview").then((m) => ({ default: m.PlotPreview })));
const NOTHING: never[] = [];

export function SheetsStation({ project }: { project: Project }) {
  const { sheetId } = useParams();
  const navigate = useNavigate();
  const id = project.id;
  const { data: sheets = NOTHING, isSuccess } = useSheets(id);
  const { data: viewports = NOTHING } = useViewports(id);
  const { data: views = NOTHING } = useViews(id);
  const { data: ladder = NOTHING } = useLadder();
  const { data: versions = NOTHING } = useModelVersions(id);
  const { data: jobs = NOTHING, refetch: lookAtJobs } = useJobs(id);
  const edits = useEdits(id);
  const { selected, rackOpen, helpOpen, say } = useDesk();
  const [dialog, setDialog] = useState<"project" | null>(null);
  const [plotting, setPlotting] = useState<string | null>(null);

  const sheet = sheets.find((s) => s.id === sheetId) ?? sheets[0];
  const { data: display } = useDisplay(sheet?.id ?? "");
  const on = useMemo(() => viewports.filter((v) => v.sheet === sheet?.id), [viewports, sheet?.id]);
  const geometry = useMemo(() => new Map(on.map((v) => [v.id, geometryOf(v)])), [on]);
  const keys = useMemo(() => display?.items.flatMap((i) => (i.type === "drawing" ? [i.linework] : [])) ?? [], [display]);
  const linework = useLinework(keys);
  const viewport = on.find((v) => v.id === selected);
  const viewOf = (viewId: string | undefined) => views.find((v) => v.id === viewId);

  useEffect(() => useDesk.getState().select(null), [sheet?.id]);
  const open = useCallback((to: string) => void navigate(`/projects/${id}/sheets/${to}`), [navigate, id]);

  const plot = useCallback(
    async (only?: Sheet) => {
      try {
        const body = { project: id, sheets: only?.id ? [only.id] : undefined };
        const job = await data(api.POST("/api/sheets/plot/", { body }));
        await lookAtJobs();
        setPlotting(job.id);
      } catch (error) {
        say(error instanceof Error ? error.message : String(error), true);
      }
    },
    [id, lookAtJobs, say],
  );

  const place = useCallback(
    (view: View, screen?: readonly [number, number]) => {
      if (!sheet) return;
      if (!screen) {
        useDesk.setState({ rackOpen: false });
        void edits.placeView(view.id, sheet.id);
        return;
      }
      const board = document.getElementById("board")?.getBoundingClientRect();
      const look = useDesk.getState().look;
      if (!board || !look) return;
      const [x, y] = screen;
      const rack = document.querySelector('[aria-label="Rack"]')?.getBoundingClientRect();
      const within = x >= (rack?.right ?? board.left) && x <= board.right && y >= board.top && y <= board.bottom;
      if (!within) return;
      useDesk.setState({ rackOpen: false });
      void edits.placeView(view.id, sheet.id, toPaper(look, x - board.left, y - board.top));
    },
    [edits, sheet],
  );

  const deeds = useMemo(
    () => ({
      nudge: (dx: number, dy: number) => {
        if (!viewport) return;
        const now = geometryOf(viewport);
        const { reachedIn } = useDesk.getState();
        if (reachedIn) {
          const { centre_u, centre_v } = shifted(now, dx, dy);
          void edits.changeViewport(viewport, { centre_u, centre_v }, "nudge what is seen");
        } else {
          const { x, y } = moved(now, dx, dy);
          void edits.changeViewport(viewport, { x, y }, "nudge a viewport");
        }
      },
      climb: (rungs: number) => {
        if (!viewport) return;
        const at = ladder.findIndex((r) => r.ratio <= viewport.ratio);
        const rung = ladder[(at < 0 ? ladder.length - 1 : at) + rungs];
        if (rung) void edits.changeViewport(viewport, rung, `scale ${rung.scale}`);
      },
      remove: () => viewport && void edits.deleteViewport(viewport),
      plot: () => sheet && void plot(sheet),
      fit: () => window.dispatchEvent(new Event(FIT)),
      help: () => useDesk.setState({ helpOpen: true }),
    }),
    [edits, ladder, plot, sheet, viewport],
  );
  useKeys(deeds);

  const addSheet = async () => {
    const made = await edits.addSheet(sheet);
    if (made) open(made);
  };
  const bringUpToDate = async (view: View | undefined) => {
    if (!view?.id) return;
    await data(api.POST("/api/views/{id}/draw/", { params: { path: { id: view.id } } })).catch((error: Error) => say(error.message, true));
    void lookAtJobs();
  };
  const plotJob = jobs.find((job) => job.id === plotting);

  return (
    <Box sx={{ position: "relative", flex: 1, minHeight: 0, display: "flex" }}>
      <Register sheets={sheets} viewports={viewports} views={views} open={sheet?.id ?? ""} onOpen={open} onAdd={() => void addSheet()} />
      {rackOpen && <Rack views={views} hasModel={versions.length > 0} onPlace={place} />}
      <Box
        component="main"
        sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column", borderLeft: `1px solid ${colours.sandDeep}` }}
      >
        {sheet && display ? (
          <>
            <Board sheet={sheet.id} display={display} linework={linework} geometry={geometry}>
              {(look) => (
                <>
                  {on.map((v, k) => (
                    <ViewportFrame
                      key={v.id}
                      id={v.id}
                      label={`Viewport ${k + 1}: ${viewOf(v.view)?.name ?? ""}, ${v.scale}`}
                      geometry={geometryOf(v)}
                      look={look}
                      onChange={(next, what) => {
                        const { ratio: _, ...change } = next;
                        void edits.changeViewport(v, change, what);
                      }}
                    />
                  ))}
                  {!on.length && <EmptySheet look={look} sheet={sheet} hasViews={views.length > 0} />}
                </>
              )}
            </Board>
            {viewport ? (
              <ViewportLedge
                viewport={viewport}
                view={viewOf(viewport.view)}
                ladder={ladder}
                job={jobs.find((job) => job.kind === "draw" && job.view === viewport.view)}
                edits={edits}
                onBringUpToDate={() => void bringUpToDate(viewOf(viewport.view))}
              />
            ) : (
              <SheetLedge
                sheet={sheet}
                edits={edits}
                onProject={() => setDialog("project")}
                onPlot={(all) => void plot(all ? undefined : sheet)}
              />
            )}
          </>
        ) : (
          isSuccess && !sheets.length && <NoSheets onAdd={() => void addSheet()} />
        )}
      </Box>
      <CarriedCard freeArea={sheet?.free_area ?? NOTHING} ladder={ladder} />
      {dialog === "project" && <ProjectFacts project={project} onClose={() => setDialog(null)} />}
      {helpOpen && <HelpCard onClose={() => useDesk.setState({ helpOpen: false })} />}
      <Suspense>{plotJob && <PlotPreview job={plotJob} onClose={() => setPlotting(null)} />}</Suspense>
    </Box>
  );
}

/** What a card in the hand will cover on the sheet when it is let go. */
function CarriedCard({ freeArea, ladder }: { freeArea: readonly number[]; ladder: Parameters<typeof rungFor>[2] }) {
  const carried = useDesk((s) => s.carried);
  const look = useDesk((s) => s.look);
  if (!carried || !look) return null;
  const [u0, v0, u1, v1] = (carried.view.extents ?? [0, 0, 1, 1]) as unknown as Extents;
  const rung = rungFor([u0, v0, u1, v1], freeArea, ladder);
  const pixels = (rung?.ratio ?? 0.01) * look.scale;
  return (
    <Box
      sx={{
        position: "fixed",
        left: carried.x,
        top: carried.y,
        width: (u1 - u0) * pixels,
        height: (v1 - v0) * pixels,
        transform: "translate(-50%, -50%)",
        border: `1.5px solid ${colours.rust}`,
        bgcolor: "#ffffffb0",
        pointerEvents: "none",
        zIndex: 1500,
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        fontSize: 13,
        fontWeight: 600,
        textAlign: "center",
      }}
    >
      {carried.view.name}
      <br />
      {rung?.scale}
    </Box>
  );
}

function EmptySheet({ look, sheet, hasViews }: { look: Look; sheet: Sheet; hasViews: boolean }) {
  const [x = 0, y = 0, width = 0, height = 0] = sheet.free_area;
  return (
    <Box
      sx={{
        position: "absolute",
        left: look.x + x * look.scale,
        top: look.y - (y + height) * look.scale,
        width: width * look.scale,
        height: height * look.scale,
        display: "flex",
        alignItems: "center",
        justifyContent: "center",
        color: "text.secondary",
        textAlign: "center",
        pointerEvents: "none",
      }}
    >
      {hasViews
        ? "Nothing is placed on this sheet. Pull out the views (V) and drag a card here."
        : "There is no view to place yet. Bring a building file in at the Model station."}
    </Box>
  );
}

function NoSheets({ onAdd }: { onAdd: () => void }) {
  return (
    <Box sx={{ flex: 1, display: "flex", flexDirection: "column", alignItems: "center", justifyContent: "center", gap: 2, bgcolor: colours.sand }}>
      <Box sx={{ fontSize: 15 }}>The register is empty.</Box>
      <Button variant="contained" onClick={onAdd}>
        Add the first sheet
      </Button>
    </Box>
  );
}
