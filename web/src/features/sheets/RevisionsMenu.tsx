/** The revision table of a sheet: its newest row is what the title block says. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Revision, Sheet } from "../../api/client";
import { useRevisionOffers } from "../../api/issues";
import { FigureField } from "../../components/FigureField";
import { PopUp } from "../../components/PopUp";
import type { Edits } from "./sheetCommands";
import { t } from "../../words/words";

const COLUMNS = [
  ["revision", t("Revision"), 72],
  ["date", t("Date"), 96],
  ["description", t("Description"), 250],
  ["initials", t("Initials"), 72],
] as const;

interface Props {
  sheet: Sheet;
  edits: Edits;
}

export function RevisionsMenu({ sheet, edits }: Props) {
  const newest = (sheet.revisions as Revision[]).at(-1);
  return (
    <PopUp
      button={newest ? t("Revision {revision}", { revision: newest.revision }) : t("No revision yet")}
      name={t("Revisions of this sheet")}
    >
      <Revisions sheet={sheet} edits={edits} />
    </PopUp>
  );
}

function Revisions({ sheet, edits }: Props) {
  const revisions = sheet.revisions as Revision[];
  const { data: offers } = useRevisionOffers(sheet.project, [sheet.id], sheet.purpose);
  const next = offers?.[0]?.revision ?? "";
  const change = (to: Revision[], what: string) =>
    void edits.changeSheet(sheet, { revisions: to }, t("{what} of {number}", { what, number: sheet.number }));
  const add = () => {
    const today = new Date().toLocaleDateString("sv"); // year, month, day
    change(
      [...revisions, { revision: next, date: today, description: "", initials: "" }],
      t("a new revision"),
    );
  };
  return (
    <Box sx={{ p: 2, display: "flex", flexDirection: "column", gap: 0.5, minWidth: 340 }}>
      {revisions.map((revision, k) => (
        <Box
          key={k}
          role="group"
          aria-label={t("Revision {revision}", { revision: revision.revision })}
          sx={{ display: "flex", gap: 0.75, alignItems: "flex-end" }}
        >
          {COLUMNS.map(([key, label, width]) => (
            <FigureField
              key={key}
              label={label}
              width={width}
              value={revision[key]}
              onCommit={(value) =>
                change(
                  revisions.map((r, n) => (n === k ? { ...r, [key]: value } : r)),
                  t("a revision"),
                )
              }
            />
          ))}
          <Button
            onClick={() =>
              change(
                revisions.filter((_, n) => n !== k),
                t("delete a revision"),
              )
            }
            sx={{ minWidth: 0, px: 1 }}
          >
            {t("Delete")}
          </Button>
        </Box>
      ))}
      {!revisions.length && (
        <Box sx={{ fontSize: 13, color: "text.secondary" }}>
          {t("Its title block says no revision and no date of issue yet.")}
        </Box>
      )}
      <Box sx={{ mt: 1 }}>
        <Button variant="outlined" disabled={!next} onClick={add}>
          {t("Add revision {next}", { next })}
        </Button>
      </Box>
    </Box>
  );
}
