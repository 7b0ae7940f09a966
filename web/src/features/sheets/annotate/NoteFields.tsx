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
import { t } from "../../../words/words";

const NOTHING: never[] = [];

export function NoteFields({ piece, edits }: Of<NoteSpec>) {
  const { spec } = piece;
  const named = useNamed(piece.project, "text");
  const style = named.some(([id]) => id === spec.named) ? spec.named : "";
  const change = (to: Partial<NoteSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <>
      <Group name={t("Note")} grow>
        <NoteText text={spec.text} onCommit={(text) => change({ text }, t("text of a note"))} />
      </Group>
      <Group name={t("Lettering")}>
        <Rows>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            <ChoiceField
              label={t("Style")}
              width={92}
              value={style}
              choices={[["", t("Custom")], ...named]}
              onChoose={(to) => change({ named: to }, t("style of a note"))}
            />
            {style ? (
              <Box sx={{ width: 84 }} />
            ) : (
              <ChoiceField
                label={t("Height")}
                width={84}
                value={String(spec.size)}
                choices={SIZES}
                onChoose={(size) => change({ size: Number(size) }, t("height of lettering"))}
              />
            )}
          </Box>
          <Box sx={{ display: "flex", gap: 0.5, alignItems: "flex-end" }}>
            <FigureField
              label={t("Width")}
              unit="mm"
              number
              width={92}
              value={String(spec.width)}
              onCommit={(width) => change({ width: Number(width) }, t("width of a note"))}
            />
            {!style && (
              <ToggleButton
                on={spec.bold}
                name={t("Bold")}
                tip={t("All of its words")}
                onToggle={() => change({ bold: !spec.bold }, t("bold or not"))}
              />
            )}
          </Box>
        </Rows>
      </Group>
      <Group name={t("Set")}>
        <Rows>
          <ChoiceField
            label={t("Leader")}
            width={130}
            value={spec.leader}
            choices={LEADERS}
            onChoose={(leader) => change({ leader: leader as NoteSpec["leader"] }, t("leader of a note"))}
          />
          <ChoiceField
            label={t("Aligned")}
            width={130}
            value={spec.align}
            choices={ALIGNS}
            onChoose={(align) => change({ align: align as NoteSpec["align"] }, t("alignment of a note"))}
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
    <Tooltip title={t("Then click what else it speaks of")}>
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
        {t("Add a leader")}
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
    <Group name={t("Numbered note")}>
      <Rows>
        <ChoiceField
          label={t("Note of the list")}
          width={300}
          value={known ? spec.note : ""}
          choices={[
            ...(known ? [] : [["", t("no longer in the list")] as const]),
            ...notes.map((n) => [n.id, `${n.number}  ${n.text}`] as const),
          ]}
          onChoose={(note) => note && change({ note }, t("which note it is"))}
        />
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <ChoiceField
            label={t("Mark")}
            width={146}
            value={spec.mark}
            choices={MARKS}
            onChoose={(mark) => change({ mark: mark as NumberedNoteSpec["mark"] }, t("mark of a note"))}
          />
          <ChoiceField
            label={t("Leader")}
            width={146}
            value={spec.leader}
            choices={LEADERS}
            onChoose={(leader) =>
              change({ leader: leader as NumberedNoteSpec["leader"] }, t("leader of a note"))
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
