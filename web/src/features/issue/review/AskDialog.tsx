/** Asking for a review: of an issue or of sheets as they are, by whom, and until when. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { ApiError, type Issue, type Sheet } from "../../../api/client";
import { ChoiceField } from "../../../components/ChoiceField";
import { TitledDialog } from "../../../components/TitledDialog";
import { colours } from "../../../theme/theme";
import { askForReview, endOf, inDays, type SecretLink } from "./reviewCommands";
import { t } from "../../../words/words";

interface Props {
  project: string;
  number: number;
  sheets: readonly Sheet[];
  issues: readonly Issue[];
  onAsked: (review: string, links: readonly SecretLink[]) => void;
  onClose: () => void;
}

const NOW = "";
const ABOUT =
  t("Whoever has a link looks at the sheets and comments on them in a browser, without an account. ") +
  t("All of them see each other’s comments.");

export function AskDialog({ project, number, sheets, issues, onAsked, onClose }: Props) {
  const [issue, setIssue] = useState(NOW);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const [about, setAbout] = useState({
    name: t("Review {number}", { number }),
    message: "",
    until: inDays(14),
    word: "",
  });
  const [people, setPeople] = useState("");
  const [anyone, setAnyone] = useState(false);
  const [problem, setProblem] = useState("");
  const [asking, setAsking] = useState(false);
  const names = people.split(/[\n,;]/).flatMap((name) => name.trim() || []);
  const ask = async () => {
    setProblem("");
    setAsking(true);
    try {
      const made = await askForReview({
        project,
        name: about.name.trim() || t("Review {number}", { number }),
        message: about.message,
        word: about.word,
        until: endOf(about.until),
        issue: issue || null,
        sheets: issue ? [] : sheets.filter((s) => !without.has(s.id)).map((s) => s.id),
        people: names,
        anyone,
      });
      onAsked(made.review.id, made.links);
    } catch (error) {
      setProblem(
        error instanceof ApiError ? error.message : t("The review could not be asked for. Try again."),
      );
      setAsking(false);
    }
  };
  const field = (key: keyof typeof about, label: string, more: object = {}) => (
    <TextField
      label={label}
      size="small"
      value={about[key]}
      onChange={(event) => setAbout({ ...about, [key]: event.target.value })}
      {...more}
    />
  );
  return (
    <TitledDialog
      title={t("Ask for a review")}
      text={ABOUT}
      width="md"
      onClose={onClose}
      onSubmit={() => void ask()}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button type="submit" variant="contained" disabled={asking || !about.until}>
            {t("Ask for the review")}
          </Button>
        </>
      }
    >
      <Box sx={{ display: "flex", gap: 2.5, pt: 0.5 }}>
        <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column", gap: 1.5 }}>
          {field("name", t("Name"), { autoFocus: true })}
          {field("message", t("What they should look at"), { multiline: true, minRows: 3, maxRows: 6 })}
          <TextField
            label={t("People, one in each line")}
            size="small"
            multiline
            minRows={3}
            maxRows={6}
            value={people}
            helperText={t("Each gets a link of their own, with their name under what they say.")}
            onChange={(event) => setPeople(event.target.value)}
          />
          <FormControlLabel
            control={<Checkbox checked={anyone} onChange={(event) => setAnyone(event.target.checked)} />}
            label={t("A link for whoever has it, who then gives a name")}
          />
          <Box sx={{ display: "flex", gap: 1.5 }}>
            {field("until", t("Open until"), {
              type: "date",
              sx: { width: 150 },
              slotProps: { inputLabel: { shrink: true }, htmlInput: { min: inDays(0) } },
            })}
            {field("word", t("Word to know (optional)"), { sx: { flex: 1 } })}
          </Box>
        </Box>
        <Box sx={{ width: 300, display: "flex", flexDirection: "column", gap: 1 }}>
          <ChoiceField
            label={t("What is reviewed")}
            width="100%"
            value={issue}
            choices={[
              [NOW, t("Sheets as they are now")],
              ...issues
                .toReversed()
                .map((i) => [i.id, t("{name}, as it was issued", { name: i.name })] as const),
            ]}
            onChoose={setIssue}
          />
          <Box
            role="group"
            aria-label={t("Sheets to be reviewed")}
            sx={{
              flex: 1,
              overflowY: "auto",
              maxHeight: 330,
              bgcolor: colours.sandPale,
              border: `1px solid ${colours.sandDeep}`,
              px: 1,
              py: 0.5,
            }}
          >
            {issue
              ? issues
                  .find((i) => i.id === issue)
                  ?.sheets.map((s) => (
                    <Box key={s.id} sx={{ fontSize: 13, py: 0.5 }}>
                      <b>{s.number}</b> {s.title}
                      {s.revision && `, ${s.revision}`}
                    </Box>
                  ))
              : sheets.map((s) => (
                  <FormControlLabel
                    key={s.id}
                    sx={{ display: "flex", mr: 0, "& .MuiFormControlLabel-label": { fontSize: 13 } }}
                    control={
                      <Checkbox
                        size="small"
                        checked={!without.has(s.id)}
                        onChange={(event) => {
                          const next = new Set(without);
                          if (event.target.checked) next.delete(s.id);
                          else next.add(s.id);
                          setWithout(next);
                        }}
                      />
                    }
                    label={
                      <>
                        <b>{s.number}</b> {s.title}
                      </>
                    }
                  />
                ))}
          </Box>
        </Box>
      </Box>
      {problem && <Alert severity="error">{problem}</Alert>}
    </TitledDialog>
  );
}
