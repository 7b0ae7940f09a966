/** The register at the Check station: each sheet with how many findings it has. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { Finding, Severity, Sheet } from "../../api/client";
import { colours } from "../../theme/theme";
import { SEVERITIES, SeverityMark } from "../../components/severities";
import { t } from "../../words/words";

interface Props {
  sheets: readonly Sheet[];
  /** Those that are not let stand. */
  findings: readonly Finding[];
  /** The sheet whose findings are listed; null for those of the whole set. */
  chosen: string | null;
  onChoose: (sheet: string | null) => void;
}

export function CheckedSheets({ sheets, findings, chosen, onChoose }: Props) {
  const row = (key: string | null, number: string, title: string, own: readonly Finding[]) => (
    <ButtonBase
      key={key}
      aria-current={chosen === key ? "true" : undefined}
      onClick={() => onChoose(key)}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        px: 1.25,
        py: 0.75,
        bgcolor: chosen === key ? colours.sand : "transparent",
        boxShadow: chosen === key ? `inset 3px 0 0 ${colours.rust}` : "none",
        "&:hover": { bgcolor: chosen === key ? colours.sand : colours.sandPale },
      }}
    >
      <Box sx={{ fontSize: 12.5, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
        <b>{number}</b> {title}
      </Box>
      <Box sx={{ display: "flex", gap: 1, minHeight: 18 }}>
        {(Object.keys(SEVERITIES) as Severity[]).map((severity) => {
          const count = own.filter((f) => f.severity === severity).length;
          return count > 0 && <SeverityMark key={severity} severity={severity} count={count} />;
        })}
        {!own.length && (
          <Box component="span" sx={{ fontSize: 12, color: colours.sea }}>
            {t("nothing found")}
          </Box>
        )}
      </Box>
    </ButtonBase>
  );
  return (
    <Box
      component="nav"
      aria-label={t("Checked sheets")}
      sx={{ width: 204, flexShrink: 0, overflowY: "auto", bgcolor: "background.default", py: 0.75 }}
    >
      {row(null, t("Whole set"), "", findings)}
      {sheets.map((sheet) =>
        row(
          sheet.id,
          sheet.number,
          sheet.title,
          findings.filter((f) => f.sheet === sheet.id),
        ),
      )}
    </Box>
  );
}
