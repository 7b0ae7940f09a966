/** The register: every sheet by every issue, and the record of the issue that is chosen. */
import { useMoments } from "../../components/moments";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import { useSearchParams } from "react-router-dom";
import type { Issue, IssuedSheet, Project, Sheet } from "../../api/client";
import { useIssues } from "../../api/issues";
import { EmptyState } from "../../components/EmptyState";
import { colours } from "../../theme/theme";
import { IssueRecord } from "./IssueRecord";
import { t } from "../../words/words";

interface Props {
  project: Project;
  sheets: readonly Sheet[];
}

/** A line of the register: a sheet that there is, or one that was issued and is no more. */
interface Row {
  key: string;
  number: string;
  title: string;
  now: string;
  issued: Map<string, IssuedSheet>;
}

export function RegisterPage({ project, sheets }: Props) {
  const { dayOf } = useMoments();
  const { data: issues } = useIssues(project.id);
  const [query, setQuery] = useSearchParams();
  if (!issues) return null;
  if (!issues.length)
    return (
      <EmptyState text={t("Nothing has been issued yet. What is issued is listed here for ever, as it was.")}>
        <Button variant="contained" href={`/projects/${project.id}/issue/send`}>
          {t("Issue sheets to recipients")}
        </Button>
      </EmptyState>
    );
  const chosen = issues.find((i) => i.id === query.get("issue")) ?? issues.at(-1);
  const show = (issue: Issue) => setQuery({ issue: issue.id }, { replace: true });
  const file = (form: "pdf" | "xlsx") => `/api/issue-register/?project=${project.id}&form=${form}`;
  return (
    <Box sx={{ flex: 1, minHeight: 0, display: "flex" }}>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <Box sx={{ px: 2, py: 1, display: "flex", alignItems: "center", gap: 0.5 }}>
          <Box component="h2" sx={{ m: 0, fontSize: 14, fontWeight: 650, flex: 1 }}>
            {t("Drawing register")}
          </Box>
          <Button variant="outlined" component="a" href={file("pdf")} download>
            {t("Download PDF")}
          </Button>
          <Button variant="outlined" component="a" href={file("xlsx")} download>
            {t("Download XLSX")}
          </Button>
        </Box>
        <Box sx={{ flex: 1, overflow: "auto", px: 2, pb: 2 }}>
          <Box component="table" aria-label={t("Drawing register")} sx={TABLE}>
            <thead>
              <tr>
                <th scope="col">{t("Number")}</th>
                <th scope="col">{t("Title")}</th>
                <th scope="col">{t("Now")}</th>
                {issues.map((issue) => (
                  <th key={issue.id} scope="col" style={{ padding: 0 }}>
                    <ButtonBase
                      aria-current={issue === chosen ? "true" : undefined}
                      onClick={() => show(issue)}
                      sx={{
                        display: "block",
                        width: "100%",
                        textAlign: "left",
                        px: 1.25,
                        py: 0.75,
                        bgcolor: issue === chosen ? colours.rustPale : "transparent",
                        "&:hover": { bgcolor: issue === chosen ? colours.rustPale : colours.sandPale },
                      }}
                    >
                      <Box sx={{ fontWeight: 650, color: "text.primary", maxWidth: 150 }}>{issue.name}</Box>
                      {dayOf(issue.date)}
                    </ButtonBase>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rowsOf(sheets, issues).map((row) => (
                <tr key={row.key}>
                  <th scope="row">{row.number}</th>
                  <td>{row.title}</td>
                  <td>{row.now || "–"}</td>
                  {issues.map((issue) => {
                    const issued = row.issued.get(issue.id);
                    return (
                      <td key={issue.id} style={issue === chosen ? { background: colours.rustPale } : {}}>
                        {issued && (
                          <>
                            <b>{issued.revision || "–"}</b> {issue.purpose}
                          </>
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </Box>
        </Box>
      </Box>
      {chosen && <IssueRecord key={chosen.id} project={project.id} issue={chosen} />}
    </Box>
  );
}

function rowsOf(sheets: readonly Sheet[], issues: readonly Issue[]): Row[] {
  const rows = new Map<string, Row>();
  for (const { id, number, title, revisions } of sheets)
    rows.set(id, { key: id, number, title, now: revisions.at(-1)?.revision ?? "", issued: new Map() });
  for (const issue of issues)
    for (const issued of issue.sheets) {
      const key = issued.sheet ?? t("gone {number}", { number: issued.number });
      const { number, title } = issued;
      const row = rows.get(key) ?? {
        key,
        number,
        title: t("{title} (deleted)", { title }),
        now: "",
        issued: new Map(),
      };
      row.issued.set(issue.id, issued);
      rows.set(key, row);
    }
  return [...rows.values()];
}

const TABLE = {
  borderCollapse: "collapse",
  fontSize: 13,
  bgcolor: colours.paper,
  "& th, & td": {
    border: `1px solid ${colours.sandDeep}`,
    px: 1.25,
    py: 0.6,
    textAlign: "left",
    verticalAlign: "top",
    fontVariantNumeric: "tabular-nums",
  },
  "& thead th": { fontSize: 12, fontWeight: 400, color: "text.secondary", bgcolor: colours.sandLight },
  "& tbody th": { fontWeight: 650, whiteSpace: "nowrap" },
} as const;
