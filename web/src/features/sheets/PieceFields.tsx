/** What a piece of annotation says and how it looks, kind by kind. */
import Box from "@mui/material/Box";
import type {
  Annotation,
  AnnotationSpec,
  CloudSpec,
  DimensionSpec,
  NoteSpec,
  SpotLevelSpec,
  TagSpec,
} from "../../api/client";
import { ChoiceField } from "../../components/ChoiceField";
import { FigureField } from "../../components/FigureField";
import { Buttons, Group, Rows } from "../../components/Ledge";
import { ToggleButton } from "../../components/ToggleButton";
import type { AnnotationEdits } from "./annotationCommands";
import { NoteText } from "./NoteText";
import { ALIGNS, LEADERS, MEASURES, STYLES, TAG_WORDS } from "./pieceChoices";

type Of<S extends AnnotationSpec> = { piece: Annotation & { spec: S }; edits: AnnotationEdits };

const SIZES = ["1.8", "2.5", "3.5", "5", "7"].map((size) => [size, `${size} mm`] as const);

export function NoteFields({ piece, edits }: Of<NoteSpec>) {
  const { spec } = piece;
  const change = (to: Partial<NoteSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <>
      <Group name="Note" grow>
        <NoteText text={spec.text} onCommit={(text) => change({ text }, "text of a note")} />
      </Group>
      <Group name="Lettering">
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField
              label="Height"
              width={84}
              value={String(spec.size)}
              choices={SIZES}
              onChoose={(size) => change({ size: Number(size) }, "height of lettering")}
            />
            <ChoiceField
              label="Aligned"
              width={84}
              value={spec.align}
              choices={ALIGNS}
              onChoose={(align) => change({ align: align as NoteSpec["align"] }, "alignment of a note")}
            />
          </Box>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <FigureField
              label="Width"
              unit="mm"
              number
              width={84}
              value={String(spec.width)}
              onCommit={(width) => change({ width: Number(width) }, "width of a note")}
            />
            <ToggleButton
              on={spec.bold}
              name="Bold"
              tip="All of its words"
              onToggle={() => change({ bold: !spec.bold }, "bold or not")}
            />
          </Box>
        </Rows>
      </Group>
      <Group name="Leader">
        <ChoiceField
          label="Ends"
          width={134}
          value={spec.leader}
          choices={LEADERS}
          onChoose={(leader) => change({ leader: leader as NoteSpec["leader"] }, "leader of a note")}
        />
      </Group>
    </>
  );
}

export function DimensionFields({ piece, edits }: Of<DimensionSpec>) {
  const { spec } = piece;
  const change = (to: Partial<DimensionSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const single = spec.points.length === 2;
  return (
    <Group name="Dimension">
      <Rows>
        <ChoiceField
          label="Measures"
          width={136}
          value={spec.measures}
          choices={MEASURES}
          onChoose={(to) =>
            change({ measures: to as DimensionSpec["measures"] }, "what a dimension measures")
          }
        />
        <ChoiceField
          label="Figures in"
          width={136}
          value={spec.style}
          choices={STYLES}
          onChoose={(to) => change({ style: to as DimensionSpec["style"] }, "unit of a dimension")}
        />
      </Rows>
      <Rows>
        <FigureField
          label="From first point"
          unit="mm"
          number
          width={136}
          value={String(spec.offset)}
          onCommit={(to) => change({ offset: Number(to) }, "move a dimension")}
        />
        {single ? (
          <FigureField
            label="Typed over the figure"
            width={136}
            value={spec.overrides[0] ?? ""}
            placeholder="true figure"
            onCommit={(text) => change({ overrides: text ? [text] : [] }, "text of a dimension")}
          />
        ) : (
          <Buttons>
            <ToggleButton
              on={spec.together}
              name="Equal lengths as one"
              tip="Such as 4 × 600 = 2400"
              onToggle={() => change({ together: !spec.together }, "equal lengths as one or not")}
            />
          </Buttons>
        )}
      </Rows>
    </Group>
  );
}

export function LevelFields({ piece, edits }: Of<SpotLevelSpec>) {
  const { spec } = piece;
  const change = (to: Partial<SpotLevelSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Spot level">
      <Rows>
        <FigureField
          label="Typed over the figure"
          width={136}
          value={spec.override}
          placeholder="true figure"
          onCommit={(override) => change({ override }, "text of a level")}
        />
        <ToggleButton
          on={spec.feet}
          name="Feet and inches"
          tip="In feet and inches, and not in metres"
          onToggle={() => change({ feet: !spec.feet }, "unit of a level")}
        />
      </Rows>
    </Group>
  );
}

export function TagFields({ piece, edits }: Of<TagSpec>) {
  const { spec } = piece;
  const change = (to: Partial<TagSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Tag">
      <Rows>
        <ChoiceField
          label="Shows"
          width={136}
          value={spec.shows}
          choices={TAG_WORDS}
          onChoose={(shows) => change({ shows: shows as TagSpec["shows"] }, "what a tag shows")}
        />
        <FigureField
          label="Typed over"
          width={136}
          value={spec.override}
          placeholder="its own words"
          onCommit={(override) => change({ override }, "text of a tag")}
        />
      </Rows>
    </Group>
  );
}

export function CloudFields({ piece, edits }: Of<CloudSpec>) {
  const { spec } = piece;
  const change = (to: Partial<CloudSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Cloud">
      <FigureField
        label="Revision"
        width={92}
        value={spec.revision}
        onCommit={(revision) => change({ revision }, "revision of a cloud")}
      />
      <ToggleButton
        on={spec.kept}
        name="Keep it"
        tip="It stays when the sheet has its next revision"
        onToggle={() => change({ kept: !spec.kept }, "keep a cloud or not")}
      />
    </Group>
  );
}
