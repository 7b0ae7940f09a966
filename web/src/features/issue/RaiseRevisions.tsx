/** Raising the revisions of sheets in one step: which, as what, and what is said of it. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import { useState } from "react";
import type { RevisionOffer, Sheet } from "../../api/client";
import { useAnnotations } from "../../api/annotations";
import { useChecks } from "../../api/checks";
import { useIssueChoices, useRevisionOffers } from "../../api/issues";
import { ComboField } from "../../components/ComboField";
import { ONE_LINE } from "../../theme/theme";
import { TitledDialog } from "../../components/TitledDialog";
import { FigureField } from "../../components/FigureField";
import { useCheckedAgain } from "../../sync/useCheckedAgain";
import { raise } from "./issueCommands";
import { SchemeFields } from "./SchemeFields";
import { t } from "../../words/words";

const NOTHING: never[] = [];

interface Props {
  project: string;
  sheets: readonly Sheet[];
  purpose: string;
  date: string;
  onClose: () => void;
}

export function RaiseRevisions({ project, sheets, purpose: given, date: day, onClose }: Props) {
  const [purpose, setPurpose] = useState(given);
  const [date, setDate] = useState(day);
  const [description, setDescription] = useState("");
  const [initials, setInitials] = useState("");
  /** What was ticked or not by hand; the rest is ticked where it differs. */
  const [chosen, setChosen] = useState<ReadonlyMap<string, boolean>>(new Map());
  const { data: choices } = useIssueChoices();
  const { data: checks } = useChecks(project);
  // Clouds about the last revision go with it.
  const { isSuccess: cloudsKnown } = useAnnotations(project);
  useCheckedAgain(project, checks);
  const ids = sheets.map((s) => s.id);
  const { data: offers = NOTHING } = useRevisionOffers(project, ids, purpose);
  const offerOf = (sheet: Sheet): RevisionOffer | undefined => offers.find((o) => o.sheet === sheet.id);
  const isOn = (sheet: Sheet) => chosen.get(sheet.id) ?? offerOf(sheet)?.differs !== false;
  const raised = sheets.flatMap((sheet) => {
    const revision = offerOf(sheet)?.revision;
    return revision && isOn(sheet) ? [{ sheet, revision }] : [];
  });
  const submit = async () => {
    if (await raise(project, raised, { date, description, initials })) onClose();
  };
  return (
    <TitledDialog
      title={t("Raise revisions")}
      onClose={onClose}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button variant="contained" disabled={!raised.length || !cloudsKnown} onClick={() => void submit()}>
            {t("Raise {which}", {
              which:
                raised.length === 1 ? raised[0]?.sheet.number : t("{count} sheets", { count: raised.length }),
            })}
          </Button>
        </>
      }
    >
      <Box sx={{ overflowY: "auto", minHeight: 0 }}>
        <Box sx={{ display: "flex", gap: 1, mb: 1.25 }}>
          <Box sx={{ flexShrink: 0 }}>
            <ComboField
              label={t("Issued for")}
              width={132}
              value={purpose}
              choices={(choices?.purposes ?? NOTHING).map((value) => ({ value }))}
              onChoose={setPurpose}
            />
          </Box>
          <FigureField label={t("Date")} width={104} value={date} onCommit={setDate} />
          <FigureField label={t("Description")} width="100%" value={description} onCommit={setDescription} />
          <FigureField label={t("Initials")} width={72} value={initials} onCommit={setInitials} />
        </Box>
        <Box component="ul" aria-label={t("Sheets to raise")} sx={{ m: 0, p: 0, listStyle: "none" }}>
          {sheets.map((sheet) => {
            const offer = offerOf(sheet);
            return (
              <Box
                component="li"
                key={sheet.id}
                sx={{ display: "flex", alignItems: "center", gap: 1, fontSize: 13, minHeight: 30 }}
              >
                <Checkbox
                  size="small"
                  sx={{ p: 0.35 }}
                  checked={isOn(sheet)}
                  slotProps={{ input: { "aria-label": t("Raise {number}", { number: sheet.number }) } }}
                  onChange={(_, on) => setChosen((now) => new Map(now).set(sheet.id, on))}
                />
                <Box sx={{ width: 56, fontWeight: 650 }}>{sheet.number}</Box>
                <Box sx={CUT}>{sheet.title}</Box>
                <Box sx={{ width: 190, color: "text.secondary", fontSize: 12 }}>{told(offer)}</Box>
                <Box sx={{ width: 104, textAlign: "right", fontVariantNumeric: "tabular-nums" }}>
                  {sheet.revisions.at(-1)?.revision ?? "–"} → <b>{offer?.revision ?? "…"}</b>
                </Box>
              </Box>
            );
          })}
        </Box>
        <SchemeFields project={project} />
      </Box>
    </TitledDialog>
  );
}

const CUT = { flex: 1, minWidth: 0, ...ONE_LINE } as const;

/** How a sheet stands to what was issued of it. */
function told(offer: RevisionOffer | undefined): string {
  if (!offer) return "";
  if (offer.differs === null) return t("being compared…");
  if (!offer.differs) return t("as issued in {revision}", { revision: offer.issued || t("no revision") });
  return offer.issued ? t("differs from {issued}", { issued: offer.issued }) : t("not issued yet");
}
