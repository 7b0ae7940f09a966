/** The words of a note and how they are lettered; which note of the list a number stands for. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Annotation, NoteSpec, NumberedNoteSpec } from "../../../api/client";
import { useListedNotes } from "../../../api/annotations";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { NO_POINTS, useAnnotating } from "../../../stores/annotating";
import { NoteText } from "./NoteText";
import { ALIGNS, LEADERS, MARKS, SIZES } from "./pieceChoices";
import { useNamed, type Of } from "./pieceProps";

const NOTHING: never[] = [];

export function NoteFields({ piece, edits }: Of<NoteSpec>) {
  const { spec } = piece;
  const named = useNamed(piece.project, "text");
  const style = named.some(([id]) => id === spec.named) ? spec.named : "";
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
              label="Style"
              width={92}
              value={style}
              choices={[["", "Custom"], ...named]}
              onChoose={(to) => change({ named: to }, "style of a note")}
            />
            {style ? (
              <Box sx={{ width: 84 }} />
            ) : (
              <ChoiceField
                label="Height"
                width={84}
                value={String(spec.size)}
                choices={SIZES}
                onChoose={(size) => change({ size: Number(size) }, "height of lettering")}
              />
            )}
          </Box>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <FigureField
              label="Width"
              unit="mm"
              number
              width={92}
              value={String(spec.width)}
              onCommit={(width) => change({ width: Number(width) }, "width of a note")}
            />
            {!style && (
              <ToggleButton
                on={spec.bold}
                name="Bold"
                tip="All of its words"
                onToggle={() => change({ bold: !spec.bold }, "bold or not")}
              />
            )}
          </Box>
        </Rows>
      </Group>
      <Group name="Set">
        <Rows>
          <ChoiceField
            label="Leader"
            width={118}
            value={spec.leader}
            choices={LEADERS}
            onChoose={(leader) => change({ leader: leader as NoteSpec["leader"] }, "leader of a note")}
          />
          <ChoiceField
            label="Aligned"
            width={118}
            value={spec.align}
            choices={ALIGNS}
            onChoose={(align) => change({ align: align as NoteSpec["align"] }, "alignment of a note")}
          />
        </Rows>
        <Buttons>
          <AddLeader piece={piece} />
        </Buttons>
      </Group>
    </>
  );
}

/** What else a note speaks of: a further leader to it. */
function AddLeader({ piece }: { piece: Annotation }) {
  return (
    <Tooltip title="Then click what else it speaks of">
      <Button
        variant="outlined"
        onClick={() =>
          useAnnotating.setState({
            ...NO_POINTS,
            tool: piece.spec.kind,
            pointsFor: { what: "leader", of: [piece.id] },
          })
        }
      >
        Add a leader
      </Button>
    </Tooltip>
  );
}

export function NumberedFields({ piece, edits }: Of<NumberedNoteSpec>) {
  const { spec } = piece;
  const { data: notes = NOTHING } = useListedNotes(piece.project);
  const change = (to: Partial<NumberedNoteSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const known = notes.some((n) => n.id === spec.note);
  return (
    <Group name="Numbered note">
      <Rows>
        <ChoiceField
          label="Note of the list"
          width={300}
          value={known ? spec.note : ""}
          choices={[
            ...(known ? [] : [["", "no longer in the list"] as const]),
            ...notes.map((n) => [n.id, `${n.number}  ${n.text}`] as const),
          ]}
          onChoose={(note) => note && change({ note }, "which note it is")}
        />
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <ChoiceField
            label="Mark"
            width={146}
            value={spec.mark}
            choices={MARKS}
            onChoose={(mark) => change({ mark: mark as NumberedNoteSpec["mark"] }, "mark of a note")}
          />
          <ChoiceField
            label="Leader"
            width={146}
            value={spec.leader}
            choices={LEADERS}
            onChoose={(leader) =>
              change({ leader: leader as NumberedNoteSpec["leader"] }, "leader of a note")
            }
          />
        </Box>
      </Rows>
      <Buttons>
        <AddLeader piece={piece} />
      </Buttons>
    </Group>
  );
}
