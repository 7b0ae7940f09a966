/** The Sheets station: register, board, ledge and rack. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router-dom";
import { api, data, type Project, type Sheet, type View, type Viewport } from "../../api/client";
import { useDisplay, useJobs, useLadder, useModelVersions, useNumberDoubts, usePenStock, usePenTables, usePictures, usePlotSettings, usePlotStock, useSheets, useStock, useTemplates, useViewports, useViews } from "../../api/queries";
import { decided, resume } from "../../api/rows";
import { Agreements } from "../../board/Agreements";
import { Board } from "../../board/Board";
import { useDesk } from "../../board/desk";
import { filling, geometryOf, outlined, rungFor, toPaper, type Extents, type Geometry, type Look, type Point } from "../../board/geometry";
import { Guides } from "../../board/Guides";
import { FieldFrames } from "../../board/FieldFrames";
import { MarkLinks } from "../../board/MarkLinks";
import { Movable } from "../../board/Movable";
import { PartFrames } from "../../board/PartFrames";
import { pictures } from "../../board/pictures";
import type { Placed } from "../../board/snapping";
import { Unprintable } from "../../board/Unprintable";
import { ViewportFrame } from "../../board/ViewportFrame";
import { colours } from "../../theme/theme";
import { knownSettings } from "../issue/settingsEdits";
import { CarriedCard } from "./CarriedCard";
import { AddSeveral, ChooseView, ToSheets } from "./Dialogs";
import { useEdits, type Projection } from "./edits";
import { FieldRow } from "./FieldRow";
import { HelpCard } from "./HelpCard";
import { useKeys } from "./keys";
import { knownTables } from "./pens/penEdits";
import { PenTables } from "./pens/PenTables";
import { ProjectFacts } from "./ProjectFacts";
import { Rack } from "./Rack";
import { Register } from "./Register";
import { SeveralLedge } from "./SeveralLedge";
import { SheetLedge } from "./SheetLedge";
import { makeOwn, templateEdits } from "./templateEdits";
import { nameOfPart, TemplateLedge } from "./TemplateLedge";
import { useCompose } from "./useCompose";
import { ViewportLedge } from "./ViewportLedge";

// Reading PDFs takes a large library; it is fetched when there is one to read.
const preview = () => import("./PlotPreview");
const PlotPreview = lazy(() => preview().then((m) => ({ default: m.PlotPreview })));
/** How long after a station is entered what it may want is fetched; milliseconds. */
const LATER = 1_500;
const NOTHING: never[] = [];
const NO_DOUBTS: Record<string, string> = {};
/** How near to a line a double click takes its element; pixels. */
const REACH = 8;

const nothing = () => undefined;

type Question = { ask: "project" | "several" | "sheets" | "pens" } | { ask: "view"; points: readonly Point[] };

export function SheetsStation({ project }: { project: Project }) {
  const { sheetId } = useParams();
  const navigate = useNavigate();
  const id = project.id;
  const { data: unordered = NOTHING, isSuccess } = useSheets(id);
  const { data: viewports = NOTHING, isSuccess: placed } = useViewports(id);
  const { data: views = NOTHING } = useViews(id);
  const { data: ladder = NOTHING, refetch: lookAtLadder } = useLadder(id);
  const { data: versions = NOTHING } = useModelVersions(id);
  const { data: jobs = NOTHING, refetch: lookAtJobs } = useJobs(id);
  const { data: templates = NOTHING } = useTemplates(id);
  const { data: stock } = useStock();
  const { data: images = NOTHING } = usePictures(id);
  const { data: doubts = NO_DOUBTS } = useNumberDoubts(id);
  const { data: penStock } = usePenStock();
  const { data: ownPens = NOTHING } = usePenTables(id);
  const { data: plotStock } = usePlotStock();
  const { data: ownSettings = NOTHING } = usePlotSettings(id);
  const penTables = useMemo(() => knownTables(penStock, ownPens).map(({ key, name }) => [key, name] as const), [penStock, ownPens]);
  const plotSettings = useMemo(() => knownSettings(plotStock, ownSettings).map(({ key, name }) => [key, name] as const), [plotStock, ownSettings]);
  const edits = useEdits(id);
  const { rackOpen, helpOpen, say } = useDesk();
  const selected = useDesk((s) => s.selected);
  const [question, setQuestion] = useState<Question | null>(null);
  const [plotting, setPlotting] = useState<string | null>(null);
  const [picked, setPicked] = useState<{ in: string; element: string } | null>(null);

  const sheets = useMemo(() => unordered.toSorted((a, b) => a.position - b.position), [unordered]);
  const sheet = sheets.find((s) => s.id === sheetId) ?? sheets[0];
  const { data: display } = useDisplay(sheet?.version ? sheet.id : "");
  const on = useMemo(() => viewports.filter((v) => v.sheet === sheet?.id).toSorted((a, b) => a.position - b.position), [viewports, sheet?.id]);
  const geometry = useMemo(() => new Map(on.map((v) => [v.id, geometryOf(v)])), [on]);
  const viewOf = useCallback((viewId: string | undefined) => views.find((v) => v.id === viewId), [views]);
  const chosen = selected.flatMap((s) => on.find((v) => v.id === s) ?? []);
  const [viewport] = chosen;

  // A sheet that comes to the board has nothing chosen on it but what one came for.
  useEffect(() => {
    const timer = window.setTimeout(() => void preview(), LATER);
    return () => window.clearTimeout(timer);
  }, []);
  const arriving = useRef<string | null>(null);
  useEffect(() => {
    useDesk.setState({ template: null });
    useDesk.getState().select(arriving.current);
    arriving.current = null;
  }, [sheet?.id]);
  useEffect(() => void (isSuccess && placed && resume()), [isSuccess, placed]);
  // A scale that was typed stands on the project's own ladder from then on.
  const odd = viewport && !ladder.some((r) => r.scale === viewport.scale) ? viewport.version : null;
  useEffect(() => void (odd && lookAtLadder()), [odd, lookAtLadder]);
  const open = useCallback((to: string) => void navigate(`/projects/${id}/sheets/${to}`), [navigate, id]);

  const plot = useCallback(
    async (only?: Sheet) => {
      try {
        const body = { project: id, sheets: only?.id ? [only.id] : undefined, settings: null, form: "pdf" as const };
        const job = await decided(() => data(api.POST("/api/plots/", { body })));
        await lookAtJobs();
        setPlotting(job.id);
      } catch (error) {
        say(error instanceof Error ? error.message : String(error), true);
      }
    },
    [id, lookAtJobs, say],
  );

  const place = useCallback(
    (some: View[], screen?: readonly [number, number]) => {
      if (!sheet) return;
      if (!screen) {
        useDesk.setState({ rackOpen: false });
        void edits.place(some, sheet.id);
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
      void edits.place(some, sheet.id, toPaper(look, x - board.left, y - board.top));
    },
    [edits, sheet],
  );
  const arrange = (some: View[], projection: Projection) => {
    if (!sheet) return;
    useDesk.setState({ rackOpen: false });
    void edits.arrange(some, sheet.id, projection);
  };

  const plotThis = useCallback(() => sheet && void plot(sheet), [plot, sheet]);
  const chooseView = useCallback((points: readonly Point[]) => setQuestion({ ask: "view", points }), []);
  const compose = useCompose({ sheet, on, ladder, edits, onPlot: plotThis, onOutlined: chooseView });
  const editing = useDesk((s) => s.template);
  const template = sheet?.template === editing ? templates.find((t) => t.id === editing) : undefined;
  const onTemplate = useMemo(() => (template && display ? templateEdits(id, template, display) : null), [id, template, display]);
  useKeys(useMemo(() => (onTemplate ? { ...compose, ...onTemplate, climb: nothing, copy: nothing, paste: nothing, pin: nothing } : compose), [compose, onTemplate]));
  const editTemplate = () => {
    if (!sheet || !stock) return;
    const own = templates.some((t) => t.id === sheet.template) ? sheet.template : makeOwn(id, sheet.template, stock);
    useDesk.getState().select(null);
    useDesk.setState({ template: own ?? null, rackOpen: false });
  };
  const moveMark = (viewportId: string, view: string, bubble: number, of: number, [dx, dy]: Point) => {
    const row = on.find((v) => v.id === viewportId);
    if (!row) return;
    const old = (row.moved_marks[view] ?? []) as unknown as Point[];
    const by = Array.from({ length: of }, (_, k): Point => (k === bubble ? [(old[k]?.[0] ?? 0) + dx, (old[k]?.[1] ?? 0) + dy] : (old[k] ?? [0, 0])));
    void edits.change([row], { moved_marks: { ...row.moved_marks, [view]: by.map((p) => [...p]) } }, "move a mark");
  };

  const asPlaced = useCallback(
    (v: Viewport): Placed => ({ id: v.id, name: viewOf(v.view)?.name ?? "", geometry: geometryOf(v), axes: viewOf(v.view)?.spec.kind === "perspective" ? null : v.axes }),
    [viewOf],
  );
  const moving = () => {
    const ids = useDesk.getState().selected;
    return on.filter((v) => ids.includes(v.id) && !v.pinned).map(asPlaced);
  };
  const field = () => {
    const ids = useDesk.getState().selected;
    const [x = 0, y = 0, width = 0, height = 0] = sheet?.free_area ?? [];
    const paper = { x: 0, y: 0, width: display?.width ?? 0, height: display?.height ?? 0 };
    return { others: on.filter((v) => !ids.includes(v.id)).map(asPlaced), frames: [paper, { x, y, width, height }], guides: sheet?.guides ?? {} };
  };
  /** What has no scale fills its frame, whatever becomes of that. */
  const settle = (v: Viewport) => (g: Geometry) =>
    viewOf(v.view)?.spec.kind === "perspective" && v.extents ? filling(g, v.extents as unknown as Extents) : g;

  const toMiddle = async (v: Viewport, at: Point) => {
    const look = useDesk.getState().look;
    if (!v.linework || !look || v.pinned) return;
    const found = await pictures.elementAt(v.linework, at, REACH / look.scale / v.ratio);
    if (!found) return;
    const [centre_u, centre_v] = found.middle;
    await edits.change([v], { centre_u, centre_v }, "centre on an element");
    setPicked({ in: v.id, element: found.element });
  };

  /** The viewport in which a view stands first in the register. */
  const firstOf = (view: string) => sheets.flatMap((s) => viewports.filter((v) => v.sheet === s.id && v.view === view)).at(0);
  const standing = (view: string) => {
    const first = firstOf(view);
    return { name: viewOf(view)?.name ?? "", sheet: first ? (sheets.find((s) => s.id === first.sheet)?.number ?? "") : null };
  };
  const goTo = (view: string) => {
    const first = firstOf(view);
    if (!first) return;
    if (first.sheet === sheet?.id) useDesk.getState().select(first.id);
    else {
      arriving.current = first.id;
      open(first.sheet);
    }
  };

  const addSheet = () => {
    const made = edits.addSheets([""], sheet);
    if (made) open(made);
  };
  const bringUpToDate = async (some: Viewport[]) => {
    try {
      for (const viewId of new Set(some.map((v) => v.view))) await data(api.POST("/api/views/{id}/draw/", { params: { path: { id: viewId } } }));
    } catch (error) {
      say(error instanceof Error ? error.message : String(error), true);
    }
    void lookAtJobs();
  };
  const plotJob = jobs.find((job) => job.id === plotting);
  const beyond = display ? on.filter((v) => v.x < 0 || v.y < 0 || v.x + v.width > display.width || v.y + v.height > display.height).map((v) => v.id) : [];

  return (
    <Box sx={{ position: "relative", flex: 1, minHeight: 0, display: "flex" }}>
      <Register
        sheets={sheets}
        viewports={viewports}
        doubts={doubts}
        open={sheet?.id ?? ""}
        onOpen={open}
        onAdd={addSheet}
        onAddSeveral={() => setQuestion({ ask: "several" })}
        onMove={(moved, to) => void edits.moveSheet(moved, to)}
      />
      {rackOpen && <Rack views={views} hasModel={versions.length > 0} onPlace={place} onArrange={arrange} />}
      <Box component="main" sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column", borderLeft: `1px solid ${colours.sandDeep}` }}>
        {sheet && display ? (
          <>
            <Board sheet={sheet.id} display={display} geometry={geometry} onOutline={compose.outline}>
              {(look) => template && onTemplate ? (
                <>
                  <Box sx={{ position: "absolute", top: 10, left: "50%", transform: "translateX(-50%)", px: 1.5, py: 0.5, borderRadius: 1, bgcolor: colours.rustPale, color: colours.rust, fontSize: 12.5, fontWeight: 600, zIndex: 5000, whiteSpace: "nowrap", pointerEvents: "none" }}>
                    Editing the template “{template.name}”
                  </Box>
                  <PartFrames display={display} parts={template.spec.parts ?? NOTHING} look={look} nameOf={(part) => nameOfPart(part, stock?.fields ?? NOTHING)} onLay={(ends, what) => void onTemplate.lay(ends, what)} />
                  <Agreements look={look} />
                </>
              ) : (
                <>
                  <Unprintable look={look} paper={display} margins={sheet.unprintable?.margins ?? NOTHING} />
                  <Guides look={look} paper={display} guides={sheet.guides ?? {}} onChange={(guides, what) => void edits.changeSheet(sheet, { guides }, what)} />
                  {on.map((v, k) => (
                    <ViewportFrame
                      key={v.id}
                      id={v.id}
                      label={`Viewport ${k + 1}: ${viewOf(v.view)?.name ?? ""}, ${v.scale}`}
                      geometry={geometryOf(v)}
                      look={look}
                      pinned={v.pinned}
                      settle={settle(v)}
                      moving={moving}
                      field={field}
                      onChange={(changed, what) => void edits.reshape(changed, what)}
                      onInside={(at) => void toMiddle(v, at)}
                    />
                  ))}
                  {display.tables.map((box, k) => (
                    <Movable key={k} box={box} look={look} name="List of drawings" onMove={([dx, dy]) => void edits.changeSheet(sheet, { drawing_list: { x: box.x + dx, y: box.y + box.height + dy } }, "move the list of drawings")} />
                  ))}
                  {display.titles.map(({ viewport: of, box }) => {
                    const row = on.find((v) => v.id === of);
                    if (!row) return null;
                    const [x = 0, y = 0] = row.title_by;
                    const put = (title_by: number[]) => void edits.change([row], { title_by }, "move a drawing title");
                    return <Movable key={of} box={box} look={look} name={`Drawing title of ${viewOf(row.view)?.name ?? ""}`} onMove={([dx, dy]) => put([x + dx, y + dy])} onReset={() => (x || y) && put([0, 0])} />;
                  })}
                  <FieldFrames
                    boxes={display.fields}
                    fields={stock?.fields ?? NOTHING}
                    look={look}
                    editor={(field) => <FieldRow alone field={field} sheet={sheet} edits={edits} onProject={() => setQuestion({ ask: "project" })} />}
                  />
                  <MarkLinks links={display.links} look={look} of={standing} onGo={goTo} onMove={moveMark} />
                  <Agreements look={look} />
                  {!on.length && <EmptySheet look={look} sheet={sheet} hasViews={views.length > 0} />}
                </>
              )}
            </Board>
            {template && onTemplate ? (
              <TemplateLedge template={template} display={display} sheets={sheets} fields={stock?.fields ?? NOTHING} pictures={images} edits={onTemplate} />
            ) : chosen.length > 1 ? (
              <SeveralLedge
                viewports={chosen}
                placed={chosen.map(asPlaced)}
                edits={edits}
                onBringUpToDate={() => void bringUpToDate(chosen)}
                onToSheets={() => setQuestion({ ask: "sheets" })}
              />
            ) : viewport ? (
              <ViewportLedge
                viewport={viewport}
                view={viewOf(viewport.view)}
                views={views}
                version={versions[0]}
                ladder={ladder}
                job={jobs.find((job) => job.view === viewport.view)}
                edits={edits}
                penTables={penTables}
                element={picked?.in === viewport.id ? picked.element : null}
                onBringUpToDate={() => void bringUpToDate([viewport])}
                onToSheets={() => setQuestion({ ask: "sheets" })}
              />
            ) : (
              <SheetLedge
                sheet={sheet}
                edits={edits}
                pattern={project.number_pattern}
                stock={stock}
                templates={templates}
                plotSettings={plotSettings}
                penTables={penTables}
                onPens={() => setQuestion({ ask: "pens" })}
                onIssue={() => void navigate(`/projects/${id}/issue`)}
                onTemplate={editTemplate}
                beyond={beyond}
                onProject={() => setQuestion({ ask: "project" })}
                onPlot={(all) => void plot(all ? undefined : sheet)}
                onDuplicate={(contents) => open(edits.duplicateSheet(sheet, contents))}
                onRenumber={() => void edits.renumberFrom(sheet)}
              />
            )}
          </>
        ) : (
          isSuccess && !sheets.length && <NoSheets onAdd={addSheet} />
        )}
      </Box>
      <CarriedCard sheet={sheet?.id ?? ""} freeArea={sheet?.free_area ?? NOTHING} ladder={ladder.filter((r) => r.ladder === "metric")} />
      {question?.ask === "project" && <ProjectFacts project={project} pictures={images} onClose={() => setQuestion(null)} />}
      {question?.ask === "pens" && penStock && (
        <PenTables project={project} version={versions[0]} stock={penStock} tables={ownPens} first={sheet?.pen_table || project.pen_table} onClose={() => setQuestion(null)} />
      )}
      {question?.ask === "several" && (
        <AddSeveral
          onClose={() => setQuestion(null)}
          onAdd={(titles) => {
            setQuestion(null);
            const first = edits.addSheets(titles, sheet);
            if (first) open(first);
          }}
        />
      )}
      {question?.ask === "sheets" && (
        <ToSheets
          sheets={sheets.filter((s) => s.id !== sheet?.id)}
          count={chosen.length}
          onClose={() => setQuestion(null)}
          onPlace={(ids) => {
            setQuestion(null);
            void edits.copyTo(chosen, ids);
          }}
        />
      )}
      {question?.ask === "view" && (
        <ChooseView
          views={views.filter((v) => v.linework && v.extents)}
          onClose={() => setQuestion(null)}
          onChoose={(view) => {
            setQuestion(null);
            const [u0, v0, u1, v1] = view.extents as unknown as Extents;
            const middle: Geometry = { x: 0, y: 0, width: 1, height: 1, centre_u: 0, centre_v: 0, ratio: 1, turn: 0, shape: "polygon", corners: [] };
            const frame = outlined(middle, question.points);
            const rung = rungFor([u0, v0, u1, v1], frame, ladder.filter((r) => r.ladder === "metric"));
            if (sheet && rung) void edits.placeIn(view, sheet.id, { ...frame, ratio: rung.ratio, centre_u: (u0 + u1) / 2, centre_v: (v0 + v1) / 2 }, rung.scale);
          }}
        />
      )}
      {helpOpen && <HelpCard onClose={() => useDesk.setState({ helpOpen: false })} />}
      <Suspense>{plotJob && <PlotPreview job={plotJob} onClose={() => setPlotting(null)} />}</Suspense>
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
