/** The Check station: everything that would embarrass the office on paper, sheet by sheet, and what to do. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { Link } from "react-router-dom";
import type { Finding, Project, Severity } from "../../api/client";
import { useChecks, useWaivers } from "../../api/checks";
import { useSheets, useViewports } from "../../api/sheets";
import { useViews } from "../../api/views";
import { EmptyState } from "../../components/EmptyState";
import { useCheckedAgain } from "../../sync/useCheckedAgain";
import { useWhereabouts } from "../../components/useWhereabouts";
import { colours } from "../../theme/theme";
import { CheckedSheets } from "./CheckedSheets";
import { FindingLedge } from "./FindingLedge";
import { FindingList } from "./FindingList";
import { FindingPlace } from "./FindingPlace";
import { RulesDialog } from "./RulesDialog";
import { SEVERITIES } from "../../components/severities";
import { ToggleButton } from "../../components/ToggleButton";
import { inSentence, t } from "../../words/words";
import { said } from "../../words/said";

const NOTHING: never[] = [];
type Shown = Severity | "waived";

export function CheckStation({ project }: { project: Project }) {
  useWhereabouts(project.id, "check");
  const id = project.id;
  const { data: unordered = NOTHING, isSuccess } = useSheets(id);
  const { data: viewports = NOTHING } = useViewports(id);
  const { data: checks } = useChecks(id);
  const { data: waivers = NOTHING } = useWaivers(id);
  const sheets = useMemo(() => unordered.toSorted((a, b) => a.position - b.position), [unordered]);
  const [sheet, setSheet] = useState<string | null>(null);
  const [hidden, setHidden] = useState<ReadonlySet<Shown>>(new Set(["waived"]));
  const [chosen, setChosen] = useState<string | null>(null);
  const [rulesOpen, setRulesOpen] = useState(false);

  useCheckedAgain(id, checks);
  useViews(id); // what is put right is a view's at times

  const findings = checks?.findings ?? NOTHING;
  const waiverOf = useMemo(() => {
    const byFinding = new Map(waivers.map((w) => [w.finding, w]));
    return (finding: Finding) => byFinding.get(finding.key);
  }, [waivers]);
  const kindOf = (finding: Finding): Shown => (waiverOf(finding) ? "waived" : finding.severity);
  const listed = findings.filter((f) => (sheet === null || f.sheet === sheet) && !hidden.has(kindOf(f)));
  const current = listed.find((f) => f.key === chosen) ?? listed[0];

  if (isSuccess && !sheets.length)
    return (
      <EmptyState text={t("There is no sheet to check yet.")}>
        <Button variant="contained" component={Link} to={`/projects/${id}/sheets`}>
          {t("Compose one at the Sheets station")}
        </Button>
      </EmptyState>
    );
  const toggle = (kind: Shown) =>
    setHidden((now) => {
      const next = new Set(now);
      if (!next.delete(kind)) next.add(kind);
      return next;
    });
  const count = (kind: Shown) =>
    findings.filter((f) => kindOf(f) === kind && (sheet === null || f.sheet === sheet)).length;
  const kinds: readonly (readonly [Shown, string])[] = [
    ...(["error", "warning", "notice"] as const).map((s) => [s, SEVERITIES[s].many] as const),
    ["waived", t("Let stand")],
  ];
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column" }}>
      <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
        <CheckedSheets
          sheets={sheets}
          findings={findings.filter((f) => !waiverOf(f))}
          chosen={sheet}
          onChoose={setSheet}
        />
        <Box sx={MAIN}>
          <Box sx={{ px: 2, py: 1, display: "flex", gap: 0.5, alignItems: "center", flexWrap: "wrap" }}>
            {kinds.map(([kind, name]) => (
              <ToggleButton
                key={kind}
                on={!hidden.has(kind)}
                name={`${name} ${count(kind)}`}
                tip={t("Show {name} or not", { name: inSentence(name) })}
                onToggle={() => toggle(kind)}
              />
            ))}
            <Box role="status" sx={{ ml: "auto", fontSize: 12, color: "text.secondary" }}>
              {checks?.job
                ? t("Checking: {waiting}", { waiting: said(checks.job.stage) || t("waiting") })
                : checks?.fresh
                  ? t("Checked as it is now")
                  : ""}
            </Box>
            <Button variant="outlined" onClick={() => setRulesOpen(true)}>
              {t("Rules…")}
            </Button>
          </Box>
          <FindingList
            findings={listed}
            sheets={sheets}
            chosen={current?.key ?? null}
            waiverOf={waiverOf}
            clean={checks?.finished ? findings.length === 0 : null}
            onChoose={setChosen}
          />
        </Box>
        <FindingPlace finding={current} sheets={sheets} viewports={viewports} />
      </Box>
      <FindingLedge
        key={current?.key}
        project={id}
        finding={current}
        sheet={sheets.find((s) => s.id === current?.sheet)}
        waiver={current && waiverOf(current)}
      />
      {rulesOpen && <RulesDialog project={id} findings={findings} onClose={() => setRulesOpen(false)} />}
    </Box>
  );
}

const MAIN = {
  flex: 1,
  minWidth: 0,
  display: "flex",
  flexDirection: "column",
  bgcolor: colours.sandPale,
  borderInline: `1px solid ${colours.sandDeep}`,
} as const;
