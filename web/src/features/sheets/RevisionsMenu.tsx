/** The revision table of a sheet: its newest row is what the title block says. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { Revision, Sheet } from "../../api/client";
import { useRevisionOffers } from "../../api/issues";
import { FigureField } from "../../components/FigureField";
import { PopUp } from "../../components/PopUp";
import type { Edits } from "./sheetCommands";

const COLUMNS = [
  ["revision", "Revision", 72],
  ["date", "Date", 96],
  ["description", "Description", 250],
  ["initials", "Initials", 72],
] as const;

export function RevisionsMenu({ sheet, edits }: { sheet: Sheet; edits: Edits }) {
  const revisions = sheet.revisions as Revision[];
  const newest = revisions.at(-1);
  const { data: offers } = useRevisionOffers(sheet.project, [sheet.id], sheet.purpose);
  const next = offers?.[0]?.revision ?? "";
  const change = (to: Revision[], what: string) =>
    void edits.changeSheet(sheet, { revisions: to }, `${what} of ${sheet.number}`);
  const add = () => {
    const today = new Date().toLocaleDateString("sv"); // year, month, day
    change([...revisions, { revision: next, date: today, description: "", initials: "" }], "a new revision");
  };
  return (
    <PopUp button={newest ? `Revision ${newest.revision}` : "No revision yet"} name="Revisions of this sheet">
      <Box sx={{ p: 2, display: "flex", flexDirection: "column", gap: 0.5, minWidth: 340 }}>
        {revisions.map((revision, k) => (
          <Box
            key={k}
            role="group"
            aria-label={`Revision ${revision.revision}`}
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
                    "a revision",
                  )
                }
              />
            ))}
            <Button
              onClick={() =>
                change(
                  revisions.filter((_, n) => n !== k),
                  "delete a revision",
                )
              }
              sx={{ minWidth: 0, px: 1 }}
            >
              Delete
            </Button>
          </Box>
        ))}
        {!revisions.length && (
          <Box sx={{ fontSize: 13, color: "text.secondary" }}>
            Its title block says no revision and no date of issue yet.
          </Box>
        )}
        <Box sx={{ mt: 1 }}>
          <Button variant="outlined" disabled={!next} onClick={add}>
            Add revision {next}
          </Button>
        </Box>
      </Box>
    </PopUp>
  );
}
