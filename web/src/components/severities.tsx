/** How much a finding matters: in a word and a shape, not in a colour alone. */
import Box from "@mui/material/Box";
import type { Severity } from "../api/client";
import { colours } from "../theme/theme";
import { t } from "../words/words";

export const SEVERITIES: Record<Severity, { one: string; many: string; shape: string; colour: string }> = {
  error: { one: t("Error"), many: t("Errors"), shape: "◆", colour: colours.rust },
  warning: { one: t("Warning"), many: t("Warnings"), shape: "▲", colour: "#6b4600" },
  notice: { one: t("Notice"), many: t("Notices"), shape: "●", colour: colours.sea },
};

export function SeverityMark({ severity, count }: { severity: Severity; count?: number }) {
  const { one, shape, colour } = SEVERITIES[severity];
  return (
    <Box
      component="span"
      title={one}
      sx={{ color: colour, fontSize: 12, fontWeight: 650, whiteSpace: "nowrap" }}
    >
      <span role="img" aria-label={one} style={{ fontSize: 9, marginRight: 3 }}>
        {shape}
      </span>
      {count}
    </Box>
  );
}
