/** The project's list of notes, which stand on drawings as their numbers. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { ListedNote } from "../../../api/client";
import { useListedNotes } from "../../../api/annotations";
import { FigureField } from "../../../components/FigureField";
import { TitledDialog } from "../../../components/TitledDialog";
import { useAnnotating } from "../../../stores/annotating";
import { commit } from "../../../sync/commands";
import { changing, deleting, making, newId } from "../../../sync/rows";
import { t } from "../../../words/words";

const NOTHING: never[] = [];

/** A number that no note has yet, after the last one: 9 after 8, A3 after A2. */
export function numberAfter(numbers: readonly string[]): string {
  const ordered = numbers.toSorted((a, b) => a.localeCompare(b, undefined, { numeric: true }));
  const last = /^(.*?)(\d+)$/.exec(ordered.at(-1) ?? "");
  if (!last) return ordered.length ? `${ordered.at(-1)}1` : "1";
  const [, before = "", digits = "0"] = last;
  return `${before}${String(Number(digits) + 1).padStart(digits.length, "0")}`;
}

export function NoteList({ project, onClose }: { project: string; onClose: () => void }) {
  const { data: notes = NOTHING } = useListedNotes(project);
  const [number, setNumber] = useState("");
  const ordered = notes.toSorted((a, b) => a.number.localeCompare(b.number, undefined, { numeric: true }));
  const next = numberAfter(notes.map((n) => n.number));
  const change = (note: ListedNote, to: Partial<ListedNote>) =>
    void commit(project, t("note {number}", { number: note.number }), [changing("listed_notes", note, to)]);
  const add = (text: string) => {
    if (!text) return;
    const made = { id: newId(), project, number: number || next, text };
    setNumber("");
    const { note: before } = useAnnotating.getState();
    // Chosen at once: by the time the server has it, another may have been chosen.
    useAnnotating.setState({ note: made.id });
    void commit(project, t("add note {number}", { number: made.number }), [
      making("listed_notes", made),
    ]).then((done) => {
      if (!done && useAnnotating.getState().note === made.id) useAnnotating.setState({ note: before });
    });
  };
  return (
    <TitledDialog
      title={t("Numbered notes")}
      text={
        <>
          {t(
            "The project’s list. On drawings they stand as their numbers; a schedule of “Numbered " +
              "notes here” says what those on its sheet mean. Changed here, they change everywhere.",
          )}
        </>
      }
      onClose={onClose}
      foot={
        <Button variant="contained" onClick={onClose}>
          {t("Done")}
        </Button>
      }
    >
      <Box sx={{ maxHeight: "50vh", overflowY: "auto", display: "flex", flexDirection: "column", gap: 0.5 }}>
        {ordered.map((note) => (
          <Box key={note.id} sx={{ display: "flex", gap: 0.75, alignItems: "center" }}>
            <FigureField
              bare
              label={t("Number of note {number}", { number: note.number })}
              width={70}
              value={note.number}
              onCommit={(to) => to && change(note, { number: to })}
            />
            <FigureField
              bare
              label={t("Words of note {number}", { number: note.number })}
              width="100%"
              value={note.text}
              onCommit={(text) => change(note, { text })}
            />
            <Button
              aria-label={t("Delete note {number}", { number: note.number })}
              onClick={() =>
                void commit(project, t("delete note {number}", { number: note.number }), [
                  deleting("listed_notes", note),
                ])
              }
              sx={{ minWidth: 0, px: 0.75 }}
            >
              {t("Delete")}
            </Button>
          </Box>
        ))}
        {!ordered.length && (
          <Box sx={{ fontSize: 13, color: "text.secondary", py: 1 }}>
            {t("There is no note yet. Write the first.")}
          </Box>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}>
        <FigureField label={t("Number")} width={70} value={number} placeholder={next} onCommit={setNumber} />
        <FigureField
          key={notes.length}
          label={t("Words of a new note (Enter adds it)")}
          width="100%"
          value=""
          onCommit={add}
        />
      </Box>
    </TitledDialog>
  );
}
