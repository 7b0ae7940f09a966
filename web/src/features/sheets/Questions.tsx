/** What the Sheets station asks in a dialog, one at a time. */
import type { Annotation, Project, Viewport } from "../../api/client";
import { useLadder, usePictures, useRegister } from "../../api/sheets";
import { usePenParts, usePenTables } from "../../api/styles";
import type { Point } from "../../canvas/geometry";
import type { AnnotationEdits } from "./annotate/annotationCommands";
import { AddSeveral, ChooseView, ToSheets } from "./Dialogs";
import { OwnLevels } from "./annotate/OwnLevels";
import { OuterChains } from "./annotate/OuterChains";
import type { ListDialog } from "./annotate/ToolOptions";
import { FindReplace } from "./annotate/FindReplace";
import { NoteList } from "./annotate/NoteList";
import { StylesDialog } from "./annotate/StylesDialog";
import { SymbolLibrary } from "./annotate/SymbolLibrary";
import { TagAll } from "./annotate/TagAll";
import { Palette } from "./Palette";
import { PenTables } from "./pens/PenTables";
import { ProjectFacts } from "./ProjectFacts";
import type { Edits } from "./sheetCommands";
import { appearanceOf } from "./appearance";
import { SunStudy } from "./SunStudy";
import type { SheetSet } from "./useSet";

export type Question =
  | { ask: "project" | "several" | "sheets" | "pens" | "pieces" | "find" | "colours" | ListDialog }
  | { ask: "dimension" | "levels" | "tags" | "sun" }
  | { ask: "view"; points: readonly Point[] };

interface Props {
  question: Question;
  project: Project;
  set: SheetSet;
  chosen: Viewport[];
  /** The annotation that is chosen. */
  pieces: readonly Annotation[];
  edits: Edits;
  annotation: AnnotationEdits;
  onOpen: (sheet: string) => void;
  /** Show a piece where it stands. */
  onPiece: (piece: Annotation) => void;
  onClose: () => void;
}

const NOTHING: never[] = [];

export function Questions(props: Props) {
  const { question, project, set, chosen, pieces, edits, annotation, onOpen, onPiece, onClose } = props;
  const { data: register } = useRegister(project.id);
  const { data: images = NOTHING } = usePictures(project.id);
  const { data: penParts } = usePenParts();
  const { data: tables = NOTHING } = usePenTables(project.id);
  const { data: ladder = NOTHING } = useLadder(project.id);
  const { sheet } = set;
  switch (question.ask) {
    case "project":
      return (
        register && <ProjectFacts project={project} register={register} pictures={images} onClose={onClose} />
      );
    case "pens":
      return (
        register &&
        penParts && (
          <PenTables
            register={register}
            version={set.version}
            penParts={penParts}
            tables={tables}
            first={sheet?.pen_table ?? register.pen_table}
            onClose={onClose}
          />
        )
      );
    case "several":
      return (
        <AddSeveral
          onClose={onClose}
          onAdd={(titles) => {
            onClose();
            const first = edits.addSheets(titles, sheet);
            if (first) onOpen(first);
          }}
        />
      );
    case "sheets":
      return (
        <ToSheets
          sheets={set.sheets.filter((s) => s.id !== sheet?.id)}
          count={chosen.length}
          onClose={onClose}
          onPlace={(ids) => {
            onClose();
            void edits.copyTo(chosen, ids);
          }}
        />
      );
    case "dimension":
      return chosen[0] && <OuterChains viewport={chosen[0]} edits={annotation} onClose={onClose} />;
    case "levels":
      return chosen[0] && <OwnLevels viewport={chosen[0]} edits={annotation} onClose={onClose} />;
    case "colours":
      return register && <Palette register={register} version={set.version} onClose={onClose} />;
    case "sun":
      return (
        chosen[0] && (
          <SunStudy
            viewport={chosen[0]}
            appearance={appearanceOf(chosen[0], set.viewOf(chosen[0].view))}
            edits={edits}
            onClose={onClose}
          />
        )
      );
    case "tags":
      return (
        chosen[0] && <TagAll project={project.id} viewport={chosen[0]} edits={annotation} onClose={onClose} />
      );
    case "notes":
      return <NoteList project={project.id} onClose={onClose} />;
    case "styles":
      return <StylesDialog project={project.id} onClose={onClose} />;
    case "symbols":
      return <SymbolLibrary project={project.id} onClose={onClose} />;
    case "find":
      return <FindReplace set={set} edits={annotation} onGo={onPiece} onClose={onClose} />;
    case "pieces":
      return (
        <ToSheets
          sheets={set.sheets.filter((s) => s.id !== sheet?.id)}
          count={pieces.length}
          onClose={onClose}
          onPlace={(ids) => {
            onClose();
            annotation.copyTo(pieces, ids);
          }}
        />
      );
    case "view":
      return (
        <ChooseView
          views={set.views.filter((v) => v.linework && v.extents)}
          onClose={onClose}
          onChoose={(view) => {
            onClose();
            const metric = ladder.filter((r) => r.ladder === "metric");
            if (sheet) edits.placeInOutline(view, sheet.id, question.points, metric);
          }}
        />
      );
  }
}
