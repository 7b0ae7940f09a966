/** The ledge of a finding: go to it, put it right, or let it stand with a reason. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useNavigate } from "react-router-dom";
import type { Finding, Sheet, Waiver } from "../../api/client";
import { useRules } from "../../api/checks";
import { Group, Ledge } from "../../components/Ledge";
import { LineForm } from "../../components/LineForm";
import { useBoard } from "../../stores/board";
import { FIXES, letStand, putRight, raiseAgain } from "./checkCommands";
import { SEVERITIES, SeverityMark } from "../../components/severities";
import { t } from "../../words/words";
import { said } from "../../words/said";

/** So much about a finding is seen on the board, paper mm. */
const ABOUT = { width: 180, height: 120 };

interface Props {
  project: string;
  finding: Finding | undefined;
  sheet: Sheet | undefined;
  waiver: Waiver | undefined;
}

export function FindingLedge({ project, finding, sheet, waiver }: Props) {
  const navigate = useNavigate();
  const { data: rules } = useRules();
  if (!finding)
    return (
      <Ledge label={t("Ledge: check")}>
        <Box sx={{ fontSize: 13, pt: 2.5, color: "text.secondary" }}>
          {t("Choose a finding to see where it is.")}
        </Box>
      </Ledge>
    );
  const go = () => {
    if (!sheet) return;
    const [x, y] = finding.at ?? [];
    useBoard.setState({
      lookAt:
        x === undefined || y === undefined
          ? null
          : { x: x - ABOUT.width / 2, y: y - ABOUT.height / 2, ...ABOUT },
    });
    const select = [finding.piece || finding.viewport].filter(Boolean);
    void navigate(`/projects/${project}/sheets/${sheet.id}`, { state: { select } });
  };
  return (
    <Ledge label={t("Ledge: finding")}>
      <Group name={said(rules?.find((r) => r.key === finding.rule)?.name ?? "")} grow>
        <Box sx={{ fontSize: 13, lineHeight: 1.4, maxWidth: 460 }}>
          <SeverityMark severity={finding.severity} /> {SEVERITIES[finding.severity].one}.{" "}
          {said(finding.words)}
        </Box>
      </Group>
      <Group name={t("Let it stand")}>
        {waiver ? (
          <Box sx={{ width: 330, fontSize: 12.5, lineHeight: 1.4 }}>
            {waiver.by || t("You")}: {waiver.reason}
            <Box sx={{ mt: 0.5 }}>
              <Button variant="outlined" onClick={() => void raiseAgain(project, waiver)}>
                {t("Raise it again")}
              </Button>
            </Box>
          </Box>
        ) : (
          <Box sx={{ pt: "15px" }}>
            <LineForm
              label={t("Reason")}
              placeholder={t("Why it may stay as it is")}
              maxLength={400}
              width={230}
              button={t("Let stand")}
              onDone={(reason) => void letStand(project, finding, reason)}
            />
          </Box>
        )}
      </Group>
      <Box sx={{ ml: "auto", pt: "35px", display: "flex", gap: 0.5 }}>
        {finding.fix && !waiver && (
          <Button variant="outlined" onClick={() => void putRight(project, finding, sheet)}>
            {FIXES[finding.fix]}
          </Button>
        )}
        <Button variant="contained" disabled={!sheet} onClick={go}>
          {t("Show on the sheet")}
        </Button>
      </Box>
    </Ledge>
  );
}
