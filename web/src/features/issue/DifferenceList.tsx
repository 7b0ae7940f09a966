/** What two states differ in: each difference can be brought into sight. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ReactNode } from "react";
import type { Difference } from "../../api/client";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

interface Props {
  /** Null until they are known. */
  differences: readonly Difference[] | null;
  /** What is said where nothing is compared. */
  empty: string;
  chosen: Difference | null;
  onChoose: (difference: Difference) => void;
  /** What can be done about them. */
  children: ReactNode;
}

export function DifferenceList({ differences, empty, chosen, onChoose, children }: Props) {
  return (
    <Box
      component="aside"
      aria-label={t("Differences")}
      sx={{
        width: 286,
        flexShrink: 0,
        display: "flex",
        flexDirection: "column",
        bgcolor: "background.default",
        borderRight: `1px solid ${colours.sandDeep}`,
      }}
    >
      <Box role="status" sx={{ px: 1.5, py: 1, fontSize: 13, fontWeight: 650 }}>
        {empty || (differences ? counted(differences.length) : "")}
      </Box>
      <Box component="ul" sx={{ flex: 1, m: 0, p: 0, listStyle: "none", overflowY: "auto" }}>
        {differences?.map((difference, k) => (
          <Box component="li" key={k}>
            <Button
              aria-current={chosen === difference ? "true" : undefined}
              onClick={() => onChoose(difference)}
              sx={{
                width: "100%",
                justifyContent: "flex-start",
                textAlign: "left",
                whiteSpace: "normal",
                fontWeight: 400,
                lineHeight: 1.35,
                color: "text.primary",
                borderRadius: 0,
                bgcolor: chosen === difference ? colours.sand : "transparent",
              }}
            >
              {difference.words}
            </Button>
          </Box>
        ))}
      </Box>
      {children && <Box sx={{ p: 1.25, borderTop: `1px solid ${colours.sandDeep}` }}>{children}</Box>}
    </Box>
  );
}

const counted = (count: number) =>
  count === 0 ? t("No difference") : count === 1 ? t("1 difference") : t("{count} differences", { count });
