/** The Issue station: plotting, issuing to recipients, and the register of all that was issued. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useMemo, useState } from "react";
import { Link, NavLink, useParams } from "react-router-dom";
import type { Project } from "../../api/client";
import { useSheets } from "../../api/sheets";
import { EmptyState } from "../../components/EmptyState";
import { useWhereabouts } from "../../components/useWhereabouts";
import { colours } from "../../theme/theme";
import { ComparePage } from "./ComparePage";
import { PlotPage } from "./PlotPage";
import { RegisterPage } from "./RegisterPage";
import { ReviewPage } from "./review/ReviewPage";
import { SendPage } from "./SendPage";
import { t } from "../../words/words";

const NOTHING: never[] = [];
const PAGES = [
  ["plot", t("Plot")],
  ["send", t("Issue to recipients")],
  ["register", t("Register")],
  ["compare", t("Compare")],
  ["review", t("Review")],
] as const;

export function IssueStation({ project }: { project: Project }) {
  useWhereabouts(project.id, "issue");
  const { page = "plot" } = useParams();
  const { data: unordered = NOTHING, isSuccess } = useSheets(project.id);
  const sheets = useMemo(() => unordered.toSorted((a, b) => a.position - b.position), [unordered]);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  if (!isSuccess) return null;
  if (!sheets.length && page !== "register")
    return (
      <EmptyState text={t("There is no sheet to plot or issue yet.")}>
        <Button variant="contained" component={Link} to={`/projects/${project.id}/sheets`}>
          {t("Compose one at the Sheets station")}
        </Button>
      </EmptyState>
    );
  const given = { project, sheets, without, onChoose: setWithout };
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column" }}>
      <Box
        component="nav"
        aria-label={t("Pages of the Issue station")}
        sx={{
          display: "flex",
          height: 34,
          px: 1,
          bgcolor: colours.sandLight,
          borderBottom: `1px solid ${colours.sandDeep}`,
        }}
      >
        {PAGES.map(([key, name]) => (
          <Box
            key={key}
            component={NavLink}
            to={`/projects/${project.id}/issue${key === "plot" ? "" : `/${key}`}`}
            end={key === "plot"}
            sx={{
              px: 1.5,
              display: "flex",
              alignItems: "center",
              fontSize: 13,
              color: page === key ? "text.primary" : "text.secondary",
              fontWeight: page === key ? 650 : 400,
              textDecoration: "none",
              boxShadow: page === key ? `inset 0 -2px 0 ${colours.rust}` : "none",
              "&:hover": { color: "text.primary" },
              "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
            }}
          >
            {name}
          </Box>
        ))}
      </Box>
      {page === "send" ? (
        <SendPage {...given} />
      ) : page === "register" ? (
        <RegisterPage project={project} sheets={sheets} />
      ) : page === "review" ? (
        <ReviewPage project={project} sheets={sheets} />
      ) : page === "compare" ? (
        <ComparePage project={project} sheets={sheets} />
      ) : (
        <PlotPage {...given} />
      )}
    </Box>
  );
}
