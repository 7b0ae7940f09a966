/** The findings, each with its sheet and what is wrong; arrows go from one to the next. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { KeyboardEvent } from "react";
import type { Finding, Sheet, Waiver } from "../../api/client";
import { colours } from "../../theme/theme";
import { SeverityMark } from "../../components/severities";
import { t } from "../../words/words";
import { said } from "../../words/said";

interface Props {
  findings: readonly Finding[];
  sheets: readonly Sheet[];
  chosen: string | null;
  waiverOf: (finding: Finding) => Waiver | undefined;
  /** Whether the check found nothing at all; null before there was one. */
  clean: boolean | null;
  onChoose: (finding: string) => void;
}

export function FindingList({ findings, sheets, chosen, waiverOf, clean, onChoose }: Props) {
  const numberOf = (id: string) => sheets.find((s) => s.id === id)?.number ?? t("Set");
  const go = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const next = findings[findings.findIndex((f) => f.key === chosen) + (by ?? 0)];
    if (!by || !next) return;
    event.preventDefault();
    onChoose(next.key);
    event.currentTarget.querySelector<HTMLElement>(`[data-finding="${next.key}"]`)?.focus();
  };
  if (!findings.length)
    return (
      <Box sx={{ flex: 1, display: "flex", alignItems: "center", justifyContent: "center", px: 4 }}>
        <Box sx={{ color: "text.secondary", textAlign: "center" }}>
          {clean === null
            ? t("The set is being checked for the first time.")
            : clean
              ? t("Nothing was found. The set is clean.")
              : t("Nothing here. Other kinds of findings are hidden, or belong to other sheets.")}
        </Box>
      </Box>
    );
  return (
    <Box role="listbox" aria-label={t("Findings")} onKeyDown={go} sx={{ flex: 1, overflowY: "auto", pb: 1 }}>
      {findings.map((finding) => {
        const waiver = waiverOf(finding);
        const current = finding.key === chosen;
        return (
          <ButtonBase
            key={finding.key}
            role="option"
            aria-selected={current}
            data-finding={finding.key}
            tabIndex={current ? 0 : -1}
            onClick={() => onChoose(finding.key)}
            sx={{
              display: "grid",
              gridTemplateColumns: "18px 52px 1fr",
              columnGap: 1,
              alignItems: "baseline",
              width: "100%",
              textAlign: "left",
              px: 2,
              py: 0.75,
              fontSize: 13,
              lineHeight: 1.4,
              borderTop: `1px solid ${colours.sandDeep}66`,
              bgcolor: current ? colours.rustPale : "transparent",
              "&:hover": { bgcolor: current ? colours.rustPale : colours.sandLight },
            }}
          >
            <SeverityMark severity={finding.severity} />
            <Box component="span" sx={{ fontWeight: 650, fontSize: 12.5, whiteSpace: "nowrap" }}>
              {numberOf(finding.sheet)}
            </Box>
            <Box component="span" sx={waiver ? { color: "text.secondary" } : undefined}>
              {said(finding.words)}
              {waiver && (
                <Box component="span" sx={{ display: "block", fontSize: 12 }}>
                  {t("Let stand by {you}: {reason}", { you: waiver.by || t("you"), reason: waiver.reason })}
                </Box>
              )}
            </Box>
          </ButtonBase>
        );
      })}
    </Box>
  );
}
