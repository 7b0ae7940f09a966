/** Words that stand somewhere in the annotation of the whole set: found, gone to, and replaced. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Annotation } from "../../../api/client";
import { TitledDialog } from "../../../components/TitledDialog";
import { notify } from "../../../stores/notices";
import { colours } from "../../../theme/theme";
import type { SheetSet } from "../useSet";
import type { AnnotationEdits } from "./annotationCommands";
import { KIND_NAMES, replacedIn, wordsOf } from "./pieces";
import { t } from "../../../words/words";

const MAX_SHOWN = 200;

interface Props {
  set: SheetSet;
  edits: AnnotationEdits;
  onGo: (piece: Annotation) => void;
  onClose: () => void;
}

export function FindReplace({ set, edits, onGo, onClose }: Props) {
  const [wanted, setWanted] = useState("");
  const [by, setBy] = useState("");
  const [capitals, setCapitals] = useState(false);
  const found = wanted
    ? set.pieces.flatMap((piece) => {
        const words = wordsOf(piece.spec).find((text) => replacedIn(text, wanted, "\0", capitals) !== text);
        return words === undefined ? [] : [{ piece, words }];
      })
    : [];
  const where = (piece: Annotation) => {
    const sheet = set.sheets.find((s) => s.id === piece.sheet);
    return sheet
      ? t("Sheet {number}", { number: sheet.number })
      : t("View {name}", { name: set.viewOf(piece.view ?? undefined)?.name ?? "" });
  };
  const replace = async () => {
    const count = await edits.replaceWords(
      found.map(({ piece }) => piece),
      wanted,
      by,
      capitals,
    );
    notify(
      count === 1
        ? t("Replaced in one place.")
        : t("Replaced in {count} places. Undo takes it back.", { count }),
    );
  };
  return (
    <TitledDialog
      title={t("Find and replace in all annotation")}
      onClose={onClose}
      onSubmit={() => undefined}
      foot={
        <>
          <Button onClick={onClose}>{t("Close")}</Button>
          <Button variant="contained" disabled={!found.length} onClick={() => void replace()}>
            {t("Replace all")}
          </Button>
        </>
      }
    >
      <Box sx={{ display: "flex", gap: 1 }}>
        <TextField
          label={t("Find")}
          autoFocus
          fullWidth
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
        <TextField
          label={t("Replace by")}
          fullWidth
          value={by}
          onChange={(event) => setBy(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
        />
      </Box>
      <FormControlLabel
        label={t("Capitals count")}
        control={<Checkbox size="small" checked={capitals} onChange={(_, on) => setCapitals(on)} />}
      />
      <Box role="status" sx={{ fontSize: 13, color: "text.secondary" }}>
        {!wanted
          ? t("Notes, typed figures, headings, tables and words of symbols, on all sheets and in all views.")
          : found.length === 1
            ? t("In one piece")
            : t("In {count} pieces", { count: found.length })}
      </Box>
      <Box sx={{ maxHeight: 260, overflowY: "auto" }}>
        {found.slice(0, MAX_SHOWN).map(({ piece, words }) => (
          <Box
            key={piece.id}
            component="button"
            type="button"
            onClick={() => {
              onClose();
              onGo(piece);
            }}
            sx={{
              display: "flex",
              gap: 1,
              width: "100%",
              textAlign: "left",
              font: "inherit",
              fontSize: 13,
              p: "5px 6px",
              border: 0,
              borderBottom: `1px solid ${colours.sandDeep}`,
              bgcolor: "transparent",
              cursor: "pointer",
              "&:hover": { bgcolor: colours.sandLight },
            }}
          >
            <Box sx={{ width: 130, flexShrink: 0, color: "text.secondary" }}>{where(piece)}</Box>
            <Box sx={{ width: 92, flexShrink: 0 }}>{KIND_NAMES[piece.spec.kind]}</Box>
            <Box sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>{words}</Box>
          </Box>
        ))}
      </Box>
    </TitledDialog>
  );
}
