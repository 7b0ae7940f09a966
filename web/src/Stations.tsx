/** The stations of one project, for whoever is signed in, and the list of projects. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import { lazy, Suspense, useEffect } from "react";
import { Navigate, Route, Routes, useParams } from "react-router-dom";
import { useProject, useSession } from "./api/projects";
import { Guarded } from "./components/Guarded";
import { Header } from "./components/Header";
import { JumpTo } from "./components/JumpTo";
import { CheckStation } from "./features/check/CheckStation";
import { IssueStation } from "./features/issue/IssueStation";
import { ModelStation } from "./features/model/ModelStation";
import { ProjectsPage } from "./features/projects/ProjectsPage";
import { SignIn } from "./features/projects/SignIn";
import { SheetsStation } from "./features/sheets/SheetsStation";
import { ViewsStation } from "./features/views/ViewsStation";
import { useNotices } from "./stores/notices";
import { useBoard } from "./stores/board";
import { openHistory } from "./sync/history";
import { listen } from "./sync/listening";
import { loadPreferences } from "./stores/preferences";
import { resetBoard } from "./stores/reset";
import { t } from "./words/words";

// It is read seldom, and has a reader of its own.
const Guide = lazy(() => import("./features/guide/Guide").then((m) => ({ default: m.Guide })));

export function Signed() {
  const session = useSession();
  const name = session.data?.username;
  useEffect(() => {
    if (name) loadPreferences().catch(() => undefined);
  }, [name]);
  if (session.isPending) return null;
  if (session.error) return <Problem message={session.error.message} />;
  if (!session.data.username) return <SignIn />;
  return (
    <>
      <Routes>
        <Route path="/" element={<ProjectsPage />} />
        <Route path="/projects/:projectId/model" element={<Station name="model" />} />
        <Route path="/projects/:projectId/views/:viewId?" element={<Station name="views" />} />
        <Route path="/projects/:projectId/sheets/:sheetId?" element={<Station name="sheets" />} />
        <Route path="/projects/:projectId/check" element={<Station name="check" />} />
        <Route path="/projects/:projectId/issue/:page?" element={<Station name="issue" />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
      <Message />
    </>
  );
}

const STATIONS = {
  model: ModelStation,
  views: ViewsStation,
  sheets: SheetsStation,
  check: CheckStation,
  issue: IssueStation,
};

/** A station has this room at least; px. */
const MIN_SIZE = { minWidth: 1000, minHeight: 600 } as const;

function Station({ name }: { name: keyof typeof STATIONS }) {
  const { projectId = "" } = useParams();
  const project = useProject(projectId);
  const guideOpen = useBoard((s) => s.guideOpen);
  useEffect(() => {
    resetBoard();
    openHistory(projectId);
  }, [projectId]);
  useEffect(() => listen(projectId), [projectId]);
  const Page = STATIONS[name];
  if (project.error) return <Problem message={project.error.message} />;
  if (!project.data) return null;
  return (
    // In a smaller window, or enlarged in the browser, the whole station is scrolled rather than squeezed.
    <Box sx={{ height: "100%", overflow: "auto" }}>
      <Box sx={{ ...MIN_SIZE, height: "100%", display: "flex", flexDirection: "column" }}>
        <Header project={project.data} station={name} />
        <Box component="main" sx={{ flex: 1, minHeight: 0, display: "flex", flexDirection: "column" }}>
          <Guarded of={`${name} ${projectId}`}>
            <Page project={project.data} />
          </Guarded>
        </Box>
      </Box>
      <Suspense>{guideOpen && <Guide onClose={() => useBoard.setState({ guideOpen: false })} />}</Suspense>
      <JumpTo project={project.data} />
    </Box>
  );
}

function Message() {
  const message = useNotices((s) => s.message);
  const close = () => useNotices.setState({ message: null });
  return (
    <Snackbar
      open={Boolean(message)}
      autoHideDuration={message?.bad ? 9000 : message?.action ? 6000 : 2500}
      onClose={(_, why) => why !== "clickaway" && close()}
      anchorOrigin={{ vertical: "top", horizontal: "center" }}
    >
      <Alert
        severity={message?.bad ? "error" : "info"}
        onClose={close}
        variant="filled"
        sx={{ bgcolor: message?.bad ? undefined : "text.primary" }}
      >
        {message?.text}
        {message?.action && (
          <Button
            onClick={() => {
              message.action?.run();
              close();
            }}
            sx={{ ml: 1, py: 0, minHeight: 0, color: "inherit", textDecoration: "underline" }}
          >
            {message.action.label}
          </Button>
        )}
      </Alert>
    </Snackbar>
  );
}

function Problem({ message }: { message: string }) {
  return (
    <Box sx={{ height: "100%", display: "flex", alignItems: "center", justifyContent: "center" }}>
      <Alert severity="error">
        {message} <a href="/">{t("Go to the projects")}</a>
      </Alert>
    </Box>
  );
}
