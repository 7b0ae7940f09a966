/** The ledge of issuing: what it is called and for, and what stands in its way. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo } from "react";
import { Link } from "react-router-dom";
import type { Sheet } from "../../api/client";
import { useChecks, useWaivers } from "../../api/checks";
import { useIssueChoices } from "../../api/issues";
import { ComboField } from "../../components/ComboField";
import { FigureField } from "../../components/FigureField";
import { Group, Ledge, Rows } from "../../components/Ledge";
import { SeverityMark } from "../../components/severities";
import { colours } from "../../theme/theme";
import { useCheckedAgain } from "../../sync/useCheckedAgain";
import { t } from "../../words/words";

interface About {
  name: string;
  purpose: string;
  date: string;
  reason: string;
}

interface Props {
  project: string;
  about: About;
  chosen: readonly Sheet[];
  /** How many people are sent it. */
  recipients: number;
  busy: boolean;
  onChange: (about: Partial<About>) => void;
  onRaise: () => void;
  onIssue: () => void;
}

const NOTHING: never[] = [];

export function IssueLedge({ project, about, chosen, recipients, busy, onChange, onRaise, onIssue }: Props) {
  const { data: choices } = useIssueChoices();
  const { data: checks } = useChecks(project);
  const { data: waivers = NOTHING } = useWaivers(project);
  useCheckedAgain(project, checks);
  const found = useMemo(() => {
    const waived = new Set(waivers.map((w) => w.finding));
    const ids = new Set(chosen.map((s) => s.id));
    return (checks?.findings ?? NOTHING).filter((f) => !waived.has(f.key) && (!f.sheet || ids.has(f.sheet)));
  }, [checks, waivers, chosen]);
  const errors = found.filter((f) => f.severity === "error").length;
  const warnings = found.filter((f) => f.severity === "warning").length;
  const count = chosen.length === 1 ? chosen[0]?.number : t("{count} sheets", { count: chosen.length });
  const ready = chosen.length > 0 && recipients > 0 && !busy && (!errors || about.reason.trim() !== "");
  return (
    <Ledge label={t("Ledge: issue")}>
      <Group name={t("Issue")}>
        <Rows>
          <FigureField
            label={t("Name")}
            width={292}
            value={about.name}
            onCommit={(name) => onChange({ name })}
          />
          <Box sx={{ display: "flex", gap: 0.75 }}>
            <ComboField
              label={t("Issued for")}
              width={150}
              value={about.purpose}
              choices={(choices?.purposes ?? NOTHING).map((value) => ({ value }))}
              onChoose={(purpose) => onChange({ purpose })}
            />
            <FigureField
              label={t("Date of issue")}
              width={134}
              value={about.date}
              onCommit={(date) => onChange({ date })}
            />
          </Box>
        </Rows>
      </Group>
      <Group name={t("Check")} grow>
        <Box sx={{ fontSize: 12.5, lineHeight: 1.5, pt: 0.25 }}>
          {!checks?.fresh ? (
            <Box role="status">{t("Being checked…")}</Box>
          ) : errors || warnings ? (
            <Box role="status" sx={{ display: "flex", gap: 1.25, alignItems: "baseline" }}>
              <span>
                {errors > 0 && <SeverityMark severity="error" />}
                {errors > 0 && (errors === 1 ? t("1 error") : t("{errors} errors", { errors }))}
                {errors > 0 && warnings > 0 && ", "}
                {warnings > 0 && <SeverityMark severity="warning" />}
                {warnings > 0 && (warnings === 1 ? t("1 warning") : t("{warnings} warnings", { warnings }))}
              </span>
              <Link to={`/projects/${project}/check`} style={{ color: colours.rust }}>
                {t("Look at the check")}
              </Link>
            </Box>
          ) : (
            <Box role="status">{t("No errors and no warnings on these sheets.")}</Box>
          )}
          {errors > 0 && (
            <Box sx={{ pt: 0.5 }}>
              <FigureField
                label={t("Why it is issued all the same")}
                width={330}
                value={about.reason}
                placeholder={t("The record and the transmittal say it")}
                onCommit={(reason) => onChange({ reason })}
              />
            </Box>
          )}
        </Box>
      </Group>
      <Box sx={{ ml: "auto", pt: "35px", display: "flex", gap: 0.5 }}>
        <Button variant="outlined" disabled={!chosen.length} onClick={onRaise}>
          {t("Raise revisions…")}
        </Button>
        <Button variant="contained" disabled={!ready} onClick={onIssue}>
          {t("Issue {count} to {which}", {
            count,
            which: recipients === 1 ? t("1 recipient") : t("{recipients} recipients", { recipients }),
          })}
        </Button>
      </Box>
    </Ledge>
  );
}
