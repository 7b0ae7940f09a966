/** The way from a building file to a plotted sheet, for who goes it for the first time. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { Link } from "react-router-dom";
import { useModelVersions } from "../../api/buildings";
import { useIssues } from "../../api/issues";
import { useJobs } from "../../api/jobs";
import { useSheets, useViewports } from "../../api/sheets";
import { Panel } from "../../components/Panel";
import { Unseen } from "../../components/Unseen";
import { useBoard } from "../../stores/board";
import { prefer, usePreferences } from "../../stores/preferences";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

const NOTHING: never[] = [];

export function FirstSteps({ project }: { project: string }) {
  const wanted = usePreferences((s) => s.first_steps);
  const { data: versions = NOTHING, isSuccess } = useModelVersions(project);
  const { data: sheets = NOTHING } = useSheets(project);
  const { data: viewports = NOTHING } = useViewports(project);
  const { data: jobs = NOTHING } = useJobs(project);
  const { data: issues = NOTHING } = useIssues(project);
  const plotted = issues.length > 0 || jobs.some((job) => job.kind === "plot" && job.state === "done");
  const steps: [text: string, done: boolean, station: string][] = [
    [t("Import the building: IFC, glTF or OBJ"), versions.length > 0, "model"],
    [
      t("Look at its views, which are drawn by themselves"),
      versions.length > 0 && sheets.length > 0,
      "views",
    ],
    [t("Add a sheet"), sheets.length > 0, "sheets"],
    [t("Drag views onto it, and choose their scales"), viewports.length > 0, "sheets"],
    [t("Plot it, or check and issue the set"), plotted, "sheets"],
  ];
  if (!wanted || !isSuccess || steps.every(([, done]) => done)) return null;
  const next = steps.findIndex(([, done]) => !done);
  return (
    <Panel name={t("First steps")}>
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none", fontSize: 13 }}>
        {steps.map(([text, done, station], k) => (
          <Box component="li" key={text} sx={{ display: "flex", gap: 1, py: 0.35 }}>
            <Box
              component="span"
              sx={{ width: 16, textAlign: "center", color: done ? colours.sea : "text.secondary" }}
            >
              {done ? "✓" : k + 1}
            </Box>
            <Box component="span" sx={{ flex: 1, fontWeight: k === next ? 650 : 400 }}>
              {k === next && station !== "model" ? (
                <Link to={`/projects/${project}/${station}`} style={{ color: colours.rust }}>
                  {text}
                </Link>
              ) : (
                text
              )}
              {done && <Unseen>{` ${t("(done)")}`}</Unseen>}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ display: "flex", gap: 1, mt: 1, ml: -1 }}>
        <Button onClick={() => useBoard.setState({ guideOpen: true })}>{t("Open the guide")}</Button>
        <Button onClick={() => prefer({ first_steps: false })}>{t("Don’t show again")}</Button>
      </Box>
    </Panel>
  );
}
