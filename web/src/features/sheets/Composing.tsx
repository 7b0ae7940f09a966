/** Composing a set: register, board, ledge and rack. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { EmptyState } from "../../components/EmptyState";
import { Later } from "../../components/Later";
import { BOARD, LEDGE, LEDGE_HEIGHT, STATION } from "../../components/stationLayout";
import { useCallback, useEffect, useMemo, useRef, useState, type MouseEvent } from "react";
import { useLocation, useNavigate, useParams } from "react-router-dom";
import type { Annotation, Project, Sheet, View, Viewport } from "../../api/client";
import { useLadder, useNumberWarnings, useTemplates } from "../../api/sheets";
import { geometryOf, toPaper, type Geometry, type Point } from "../../canvas/geometry";
import { madePictures } from "../../canvas/shaded";
import { useWhereabouts } from "../../components/useWhereabouts";
import { useStable } from "../../components/useStable";
import { useContextMenu } from "../../components/useContextMenu";
import { annotate, useAnnotating } from "../../stores/annotating";
import { useBoard } from "../../stores/board";
import { useGesture } from "../../stores/gesture";
import { useOffered } from "../../stores/commands";
import { select, useSelection } from "../../stores/selection";
import { touchUp, useTouching } from "../../stores/touching";
import { resume } from "../../sync/rows";
import { useAnnotationEdits } from "./annotate/annotationCommands";
import { Board } from "./board/Board";
import { boardGroups, sheetGroups } from "./boardMenu";
import { SheetOverlay } from "./board/SheetOverlay";
import { TemplateOverlay } from "./board/TemplateOverlay";
import { Neighbours } from "./board/Neighbours";
import { CarriedCard } from "./CarriedCard";
import { CommentsOverlay } from "./comments/CommentsOverlay";
import { ScansOverlay } from "./comments/ScansOverlay";
import { HelpCard } from "./HelpCard";
import { useKeys } from "./keys";
import { Questions, type Question } from "./Questions";
import { Rack } from "./Rack";
import { EMPTY_LIST, Register } from "./Register";
import { useEdits } from "./sheetCommands";
import { LedgeInTime } from "./StationLedge";
import { templateEdits } from "./templateCommands";
import { Uncomposed } from "./Uncomposed";
import { useAnnotate } from "./annotate/useAnnotate";
import { useTouchUp } from "./touchup/useTouchUp";
import { useFindings } from "./useFindings";
import { usePlotted } from "./usePlotted";
import { useSet } from "./useSet";
import { useCompose } from "./useSheetCommands";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

const NOTHING: never[] = [];
const NO_WARNINGS: Record<string, string> = {};

const nothing = () => undefined;
/** What stands in for the ledge until it is there. */
const EMPTY_LEDGE = <Box sx={{ height: LEDGE_HEIGHT, bgcolor: colours.sandLight }} />;

export function Composing({ project }: { project: Project }) {
  const { sheetId } = useParams();
  const navigate = useNavigate();
  const id = project.id;
  const set = useSet(id, sheetId);
  const { sheet, sheets, on, display } = set;
  useWhereabouts(id, "sheets", sheet?.id);
  const { data: ladder = NOTHING } = useLadder(id);
  const { data: templates = NOTHING } = useTemplates(id);
  const { data: warnings = NO_WARNINGS } = useNumberWarnings(id);
  const findings = useFindings(id);
  const edits = useEdits(id);
  const annotation = useAnnotationEdits(id);
  const rackOpen = useBoard((s) => s.rackOpen);
  const helpOpen = useBoard((s) => s.helpOpen);
  const editing = useBoard((s) => s.template);
  const selected = useSelection((s) => s.selected);
  const [question, setQuestion] = useState<Question | null>(null);
  const { plot, shown: plotShown } = usePlotted(id);
  const [picked, setPicked] = useState<{ in: string; element: string } | null>(null);
  const geometry = useMemo(() => new Map(on.map((v) => [v.id, geometryOf(v)])), [on]);
  const shaded = useMemo(() => madePictures(on), [on]);
  const chosen = useMemo(() => selected.flatMap((s) => on.find((v) => v.id === s) ?? []), [selected, on]);

  // A sheet that comes to the board has nothing selected on it but what one came for.
  const arriving = useRef<string | null>(null);
  useEffect(() => {
    useBoard.setState({ template: null });
    annotate(null);
    touchUp(null);
    select(arriving.current);
    arriving.current = null;
  }, [sheet?.id]);
  useEffect(() => void (set.ready && resume()), [set.ready]);
  // Another station may send one here to look at something.
  const location = useLocation();
  const wanted = (location.state as { select?: string[] } | null)?.select;
  useEffect(() => {
    if (!set.ready || !wanted) return;
    select(wanted);
    void navigate(location.pathname, { replace: true, state: null });
  }, [set.ready, wanted, navigate, location.pathname]);

  const open = useCallback((to: string) => void navigate(`/projects/${id}/sheets/${to}`), [navigate, id]);
  const goTo = (view: string) => {
    const first = set.firstOf(view);
    if (first?.sheet === sheet?.id) select(first?.id ?? null);
    else if (first) {
      arriving.current = first.id;
      open(first.sheet);
    }
  };
  const goToPiece = (piece: Annotation) => {
    const to = piece.sheet ?? set.firstOf(piece.view ?? "")?.sheet;
    if (to === sheet?.id) select(piece.id);
    else if (to) {
      arriving.current = piece.id;
      open(to);
    }
  };
  const addSheet = useStable(() => {
    const made = edits.addSheets([""], sheet);
    if (made) open(made);
  });
  const addSeveral = useStable(() => setQuestion({ ask: "several" }));
  const moveSheet = useStable((moved: Sheet, to: number) => void edits.moveSheet(moved, to));
  const place = (views: View[], screen?: readonly [number, number]) => {
    if (!sheet) return;
    let at: Point | undefined;
    if (screen) {
      const { element, camera } = useBoard.getState();
      const board = element?.getBoundingClientRect();
      const [x, y] = screen;
      if (!board || !camera || x < board.left || x > board.right || y < board.top || y > board.bottom) return;
      at = toPaper(camera, x - board.left, y - board.top);
    }
    useBoard.setState({ rackOpen: false });
    void edits.place(views, sheet.id, at);
  };

  const plotNow = useStable((all: boolean) => void plot(all || !sheet ? undefined : [sheet.id]));
  const commandsOf = useStable((of: Sheet) =>
    sheetGroups(of, sheets, edits, open, (only) => void plot([only])),
  );
  const plotThis = useCallback(() => sheet && void plot([sheet.id]), [plot, sheet]);
  const chooseView = useCallback((points: readonly Point[]) => setQuestion({ ask: "view", points }), []);
  const onLinedUp = useCallback(
    (viewport: Viewport, to: Geometry) =>
      void edits.reshape(new Map([[viewport.id, to]]), t("line up by two points")),
    [edits],
  );
  const annotating = useAnnotate({ project: id, sheet: sheet?.id, on, edits: annotation, onLinedUp });
  const touchUps = useTouchUp({ project: id, sheet: sheet?.id, on });
  const compose = useCompose({
    sheet,
    on,
    ladder,
    edits,
    annotation,
    onPlot: plotThis,
    onOutlined: chooseView,
  });
  const template = sheet?.template === editing ? templates.find((each) => each.id === editing) : undefined;
  const onTemplate = useMemo(
    () => (template && display ? templateEdits(id, template, display) : null),
    [id, template, display],
  );
  useKeys(
    useMemo(
      () =>
        onTemplate
          ? { ...compose, ...onTemplate, stepScale: nothing, copy: nothing, paste: nothing, pin: nothing }
          : { ...compose, annotating, touchUps, find: () => setQuestion({ ask: "find" }) },
      [compose, annotating, touchUps, onTemplate],
    ),
  );

  useOffered(
    useMemo(
      () => [
        [t("Plot sheet"), plotThis],
        [t("Plot set"), () => void plot()],
        [t("Add several sheets"), () => setQuestion({ ask: "several" })],
        [t("Find and replace in annotation"), () => setQuestion({ ask: "find" })],
        [t("Project, client and site"), () => setQuestion({ ask: "project" })],
        [t("Pen tables"), () => setQuestion({ ask: "pens" })],
        [t("Numbered notes"), () => setQuestion({ ask: "notes" })],
        [t("Styles of annotation"), () => setQuestion({ ask: "styles" })],
        [t("Symbol library"), () => setQuestion({ ask: "symbols" })],
        [t("Show the views"), () => useBoard.setState({ rackOpen: true })],
        [t("Whole sheet"), () => compose.fit(false)],
        [t("Shortcuts"), compose.help],
      ],
      [plotThis, plot, compose],
    ),
  );
  const { menu, open: openMenu } = useContextMenu();
  /** What is under the pointer is selected first; while something is drawn or annotated there is no menu. */
  const onMenu = (event: MouseEvent) => {
    event.preventDefault();
    if (useGesture.getState().outline || useAnnotating.getState().tool || onTemplate) return;
    if (useTouching.getState().viewport) return;
    const thing = (event.target as HTMLElement).closest<HTMLElement>("[data-thing]")?.dataset.thing;
    if (!thing || !useSelection.getState().selected.includes(thing)) select(thing ?? null);
    const now = useSelection.getState().selected;
    const onToSheets = (ask: "sheets" | "pieces") => setQuestion({ ask });
    openMenu(
      event,
      boardGroups({
        commands: { ...compose, annotating },
        viewports: on.filter((v) => now.includes(v.id)),
        pieces: set.pieces.filter((p) => now.includes(p.id)),
        onToSheets,
      }),
    );
  };

  return (
    <Box sx={STATION}>
      <Neighbours set={set} />
      <Later until={EMPTY_LIST}>
        <Register
          sheets={sheets}
          viewports={set.viewports}
          warnings={warnings}
          findings={findings}
          open={sheet?.id ?? ""}
          commandsOf={commandsOf}
          onOpen={open}
          onAdd={addSheet}
          onAddSeveral={addSeveral}
          onMove={moveSheet}
          onPlot={plot}
          edits={edits}
        />
      </Later>
      {rackOpen && (
        <Rack
          project={id}
          views={set.views}
          hasModel={Boolean(set.version)}
          onPlace={place}
          onArrange={(views, projection) => {
            useBoard.setState({ rackOpen: false });
            if (sheet) void edits.arrange(views, sheet.id, projection);
          }}
        />
      )}
      {sheet && display ? (
        <>
          <Box sx={BOARD}>
            <Board
              sheet={sheet.id}
              display={display}
              geometry={geometry}
              shaded={shaded}
              onOutline={compose.outline}
              onMenu={onMenu}
            >
              {(camera) =>
                template && onTemplate ? (
                  <TemplateOverlay template={template} display={display} camera={camera} edits={onTemplate} />
                ) : (
                  <>
                    <SheetOverlay
                      annotation={annotation}
                      annotating={annotating}
                      touchUps={touchUps}
                      set={set}
                      sheet={sheet}
                      display={display}
                      camera={camera}
                      edits={edits}
                      onProject={() => setQuestion({ ask: "project" })}
                      onGo={goTo}
                      onPick={(viewport, element) => setPicked({ in: viewport, element })}
                    />
                    <ScansOverlay sheet={sheet} camera={camera} />
                    <CommentsOverlay sheet={sheet} display={display} camera={camera} />
                  </>
                )
              }
            </Board>
          </Box>
          <Box sx={LEDGE}>
            <Later until={EMPTY_LEDGE}>
              <LedgeInTime
                set={set}
                sheet={sheet}
                display={display}
                chosen={chosen}
                template={template}
                templateEdits={onTemplate}
                edits={edits}
                annotation={annotation}
                annotating={annotating}
                touchUps={touchUps}
                picked={picked}
                onAsk={setQuestion}
                onOpen={open}
                onPlot={plotNow}
              />
            </Later>
          </Box>
        </>
      ) : (
        <Box sx={BOARD}>
          {set.listed && !sheets.length && <NoSheets onAdd={addSheet} />}
          {sheet && set.problem && <Uncomposed sheet={sheet} why={set.problem} edits={edits} />}
        </Box>
      )}
      <CarriedCard
        sheet={sheet?.id ?? ""}
        freeArea={sheet?.free_area ?? NOTHING}
        ladder={ladder.filter((r) => r.ladder === "metric")}
      />
      {question && (
        <Questions
          question={question}
          project={project}
          set={set}
          chosen={chosen}
          pieces={set.pieces.filter((p) => selected.includes(p.id))}
          edits={edits}
          annotation={annotation}
          onOpen={open}
          onPiece={goToPiece}
          onClose={() => setQuestion(null)}
        />
      )}
      {menu}
      {helpOpen && <HelpCard onClose={() => useBoard.setState({ helpOpen: false })} />}
      {plotShown}
    </Box>
  );
}

function NoSheets({ onAdd }: { onAdd: () => void }) {
  return (
    <EmptyState text={t("The register is empty.")}>
      <Button variant="contained" onClick={onAdd}>
        {t("Add the first sheet")}
      </Button>
    </EmptyState>
  );
}
