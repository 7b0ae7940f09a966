/** The ledge of what is selected: the sheet, a viewport, several, or the template that is edited. */
import { memo, useDeferredValue, useEffect } from "react";
import { useNavigate } from "react-router-dom";
import { api, data, type DisplayList, type Sheet, type Template, type Viewport } from "../../api/client";
import { useJobs } from "../../api/jobs";
import { useFields, useLadder, usePictures, useRegister, useTemplates } from "../../api/sheets";
import { usePenTables, usePlotSettings } from "../../api/styles";
import { useBoard } from "../../stores/board";
import { notifyError } from "../../stores/notices";
import { useAnnotating } from "../../stores/annotating";
import { select, useSelection } from "../../stores/selection";
import { touchUp, useTouching } from "../../stores/touching";
import { AnnotateLedge } from "./annotate/AnnotateLedge";
import type { AnnotationEdits } from "./annotate/annotationCommands";
import { PieceLedge, PiecesLedge } from "./annotate/PieceLedge";
import type { Annotate } from "./annotate/useAnnotate";
import type { Question } from "./Questions";
import { SeveralLedge } from "./SeveralLedge";
import type { Edits } from "./sheetCommands";
import { SheetLedge } from "./SheetLedge";
import { copyForSheets, type TemplateEdits } from "./templateCommands";
import { TemplateLedge } from "./TemplateLedge";
import { TouchUpLedge } from "./touchup/TouchUpLedge";
import { touchUpsIn } from "./touchup/TouchUpList";
import type { TouchUps } from "./touchup/useTouchUp";
import type { SheetSet } from "./useSet";
import { ViewportLedge } from "./ViewportLedge";

const NOTHING: never[] = [];

interface Props {
  set: SheetSet;
  sheet: Sheet;
  display: DisplayList;
  chosen: Viewport[];
  template: Template | undefined;
  templateEdits: TemplateEdits | null;
  edits: Edits;
  annotation: AnnotationEdits;
  annotating: Annotate;
  touchUps: TouchUps;
  /** The element that was moved to the middle of a viewport. */
  picked: { in: string; element: string } | null;
  onAsk: (question: Question) => void;
  onOpen: (sheet: string) => void;
  onPlot: (all: boolean) => void;
}

/** The ledge of a sheet stays until that of the one that is turned to is there: the drawing comes first. */
export function LedgeInTime(props: Props) {
  const before = useDeferredValue(props);
  return <StationLedge {...(before.sheet.id === props.sheet.id ? props : before)} />;
}

const StationLedge = memo(function StationLedge(props: Props) {
  const { set, display, chosen, template, templateEdits, edits, annotation, onAsk } = props;
  const tool = useAnnotating((s) => s.tool);
  const touching = useTouching((s) => s.viewport);
  const selected = useSelection((s) => s.selected);
  const { data: fields = NOTHING } = useFields();
  const { data: images = NOTHING } = usePictures(set.project);
  const { refetch: refreshJobs } = useJobs(set.project);
  const update = async () => {
    try {
      for (const id of new Set(chosen.map((v) => v.view)))
        await data(api.POST("/api/views/{id}/draw/", { params: { path: { id } } }));
    } catch (error) {
      notifyError(error);
    }
    void refreshJobs();
  };
  if (template && templateEdits)
    return (
      <TemplateLedge
        template={template}
        display={display}
        sheets={set.sheets}
        fields={fields}
        pictures={images}
        edits={templateEdits}
      />
    );
  const touched = set.on.find((v) => v.id === touching);
  if (touched)
    return <TouchUpLedge set={set} viewport={touched} display={display} commands={props.touchUps} />;
  if (tool)
    return (
      <AnnotateLedge project={set.project} commands={props.annotating} onAsk={(ask) => onAsk({ ask })} />
    );
  const pieces = set.pieces.filter((p) => selected.includes(p.id));
  const [piece] = pieces;
  if (piece && pieces.length === 1 && !chosen.length)
    return (
      <PieceLedge
        piece={piece}
        box={display.pieces.find((box) => box.piece === piece.id)}
        set={set}
        edits={annotation}
        onOutline={(points) => onAsk({ ask: "view", points })}
      />
    );
  if (piece)
    return (
      <PiecesLedge
        pieces={pieces}
        viewports={chosen}
        set={set}
        edits={edits}
        annotation={annotation}
        onToSheets={() => onAsk({ ask: "pieces" })}
      />
    );
  if (chosen.length > 1)
    return (
      <SeveralLedge
        viewports={chosen}
        viewOf={set.viewOf}
        placed={chosen.map(set.asPlaced)}
        edits={edits}
        onBringUpToDate={() => void update()}
        onToSheets={() => onAsk({ ask: "sheets" })}
        onColours={() => onAsk({ ask: "colours" })}
      />
    );
  const [viewport] = chosen;
  return viewport ? (
    <OfViewport {...props} viewport={viewport} onUpdate={() => void update()} />
  ) : (
    <OfSheet {...props} />
  );
});

const named = (rows: readonly { id: string; name: string }[]) => rows.map((r) => [r.id, r.name] as const);

function OfViewport({
  set,
  viewport,
  edits,
  annotation,
  picked,
  onAsk,
  onUpdate,
}: Props & { viewport: Viewport; onUpdate: () => void }) {
  const { data: ladder = NOTHING, refetch: refreshLadder } = useLadder(set.project);
  const { data: jobs = NOTHING } = useJobs(set.project);
  const { data: tables = NOTHING } = usePenTables(set.project);
  // A scale that was typed stands on the project's own ladder from then on.
  const unknown = ladder.some((r) => r.scale === viewport.scale) ? null : viewport.version;
  useEffect(() => void (unknown && refreshLadder()), [unknown, refreshLadder]);
  return (
    <ViewportLedge
      viewport={viewport}
      view={set.viewOf(viewport.view)}
      views={set.views}
      version={set.version}
      ladder={ladder}
      job={jobs.find((job) => job.subject === viewport.wanted)}
      edits={edits}
      penTables={named(tables)}
      element={picked?.in === viewport.id ? picked.element : null}
      onBringUpToDate={onUpdate}
      onToSheets={() => onAsk({ ask: "sheets" })}
      onDimension={() => onAsk({ ask: "dimension" })}
      onLevels={() => onAsk({ ask: "levels" })}
      onTag={() => onAsk({ ask: "tags" })}
      onSun={() => onAsk({ ask: "sun" })}
      onColours={() => onAsk({ ask: "colours" })}
      onOutlineShape={() => void annotation.addOutline(viewport)}
      touchUps={touchUpsIn(set.touchUps, viewport).length}
      onTouchUp={() => touchUp(viewport.id)}
    />
  );
}

function OfSheet({ set, sheet, display, edits, onAsk, onOpen, onPlot }: Props) {
  const navigate = useNavigate();
  const { data: templates = NOTHING } = useTemplates(set.project);
  const { data: fields = NOTHING } = useFields();
  const { data: register } = useRegister(set.project);
  const { data: tables = NOTHING } = usePenTables(set.project);
  const { data: settings = NOTHING } = usePlotSettings(set.project);
  const editTemplate = () => {
    const now = templates.find((each) => each.id === sheet.template);
    if (!now) return;
    select(null);
    useBoard.setState({ template: now.built_in ? copyForSheets(set.project, now) : now.id, rackOpen: false });
  };
  const reachesOut = (v: Viewport) =>
    v.x < 0 || v.y < 0 || v.x + v.width > display.width || v.y + v.height > display.height;
  return (
    <SheetLedge
      sheet={sheet}
      edits={edits}
      pattern={register?.number_pattern ?? ""}
      fields={fields}
      templates={templates}
      plotSettings={named(settings)}
      penTables={named(tables)}
      onPens={() => onAsk({ ask: "pens" })}
      onIssue={() => void navigate(`/projects/${set.project}/issue`)}
      onTemplate={editTemplate}
      beyond={set.on.filter(reachesOut).map((v) => v.id)}
      onProject={() => onAsk({ ask: "project" })}
      onPlot={onPlot}
      onDuplicate={(contents) => onOpen(edits.duplicateSheet(sheet, contents))}
      onRenumber={() => void edits.renumberFrom(sheet)}
    />
  );
}
