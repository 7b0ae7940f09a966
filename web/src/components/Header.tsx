/** The slim header: where one is, the stations, what is under way, and the way out. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, NavLink } from "react-router-dom";
import { api, data, type Job, type Project } from "../api/client";
import { isActive, useJobs } from "../api/jobs";
import { useSession } from "../api/projects";
import { colours } from "../theme/theme";
import { AccountDialog } from "./AccountDialog";
import { People } from "./People";
import { RoleMark } from "./RoleMark";
import { Unreadable } from "./Unreadable";
import { useUndo } from "./useUndo";
import { Wordmark } from "./Wordmark";
import { useBoard } from "../stores/board";
import { useCommands } from "../stores/commands";
import { discardFirst } from "../sync/rows";
import { useNotices } from "../stores/notices";
import { usePresent } from "../stores/present";
import { clearHistory, useHistory } from "../sync/history";
import { clearClipboard, resetBoard } from "../stores/reset";
import { t } from "../words/words";

export const STATIONS = [
  ["model", t("Model")],
  ["views", t("Views")],
  ["sheets", t("Sheets")],
  ["check", t("Check")],
  ["issue", t("Issue")],
] as const;

export function Header({ project, station }: { project?: Project; station?: string }) {
  return (
    <Box
      component="header"
      sx={{
        height: 44,
        flexShrink: 0,
        display: "flex",
        alignItems: "center",
        px: 1.75,
        gap: 2.5,
        bgcolor: colours.ink,
        color: colours.sandLight,
      }}
    >
      <Link
        to="/"
        aria-label={t("Dunefold: all projects")}
        style={{ color: "inherit", display: "flex", textDecoration: "none" }}
      >
        <Wordmark brief={Boolean(project)} />
      </Link>
      {project && (
        <>
          <Box
            component="h1"
            sx={{
              m: 0,
              fontSize: 13.5,
              fontWeight: 600,
              maxWidth: 260,
              overflow: "hidden",
              textOverflow: "ellipsis",
              whiteSpace: "nowrap",
            }}
          >
            {project.name}
          </Box>
          <Box component="nav" aria-label={t("Stations")} sx={{ display: "flex", height: "100%" }}>
            {STATIONS.map(([key, name]) => (
              <Box
                key={key}
                component={NavLink}
                to={`/projects/${project.id}/${key}`}
                aria-current={station === key ? "page" : undefined}
                sx={{
                  px: { xs: 1, lg: 1.75 },
                  display: "flex",
                  alignItems: "center",
                  color: "inherit",
                  textDecoration: "none",
                  fontSize: 13.5,
                  opacity: station === key ? 1 : 0.78,
                  boxShadow: station === key ? `inset 0 -3px 0 ${colours.sand}` : "none",
                  "&:hover": { opacity: 1 },
                  "&:focus-visible": { outline: `2px solid ${colours.sand}`, outlineOffset: -3 },
                }}
              >
                {name}
              </Box>
            ))}
          </Box>
          <Steps project={project.id} keys={station === "sheets"} />
          <RunningJobs project={project.id} />
          <Connection />
          <Unreadable project={project.id} />
          <RoleMark project={project} />
          <People project={project.id} />
        </>
      )}
      <SignOut />
    </Box>
  );
}

/** Undo and redo; and the card of keys, where there is one. */
function Steps({ project, keys }: { project: string; keys: boolean }) {
  const undo = useUndo(project);
  const past = useHistory((s) => s.past);
  const future = useHistory((s) => s.future);
  const button = {
    minWidth: 0,
    px: { xs: 0.5, lg: 1 },
    color: "inherit",
    "&.Mui-disabled": { color: "#ffffff55" },
  };
  return (
    <Box sx={{ display: "flex" }}>
      {(["undo", "redo"] as const).map((way) => {
        const command = (way === "undo" ? past : future).at(-1);
        const name = way === "undo" ? t("Undo") : t("Redo");
        return (
          <Tooltip
            key={way}
            title={
              command
                ? t("{name}: {what} (Ctrl + {which})", {
                    name,
                    what: command.what,
                    which: way === "undo" ? "Z" : t("Shift + Z"),
                  })
                : ""
            }
          >
            <span>
              <Button aria-label={name} disabled={!command} onClick={() => undo(way)} sx={button}>
                {name}
              </Button>
            </span>
          </Tooltip>
        );
      })}
      <Tooltip title={t("To any sheet, view, station or command by its name (Ctrl + K)")}>
        <Button onClick={() => useCommands.setState({ jumping: true })} sx={button}>
          {t("Go to…")}
        </Button>
      </Tooltip>
      <Button onClick={() => useBoard.setState({ guideOpen: true })} sx={button}>
        {t("Guide")}
      </Button>
      {keys && (
        <Button onClick={() => useBoard.setState({ helpOpen: true })} sx={button}>
          {t("Shortcuts")}
        </Button>
      )}
    </Box>
  );
}

const VERBS: Record<Job["kind"], string> = {
  read: t("Reading"),
  draw: t("Drawing"),
  plot: t("Plotting"),
  check: t("Checking"),
  issue: t("Issuing"),
  remake: t("Making again"),
  receive: t("Reading"),
  compare: t("Comparing"),
  shade: t("Shading"),
  review: t("Making ready for review:"),
  comments: t("Reading comments of"),
  picture: t("Showing"),
  scan: t("Reading"),
};

function RunningJobs({ project }: { project: string }) {
  const { data: jobs } = useJobs(project);
  // A check is told where its findings are.
  const now = jobs?.filter((job) => isActive(job) && job.kind !== "check") ?? [];
  const first = now.find((job) => job.state === "running") ?? now[0];
  if (!first) return null;
  const verb = VERBS[first.kind];
  return (
    <Box role="status" sx={{ fontSize: 12.5, display: "flex", alignItems: "center", gap: 1, minWidth: 0 }}>
      <Box sx={{ width: 60, height: 4, bgcolor: "#ffffff33", borderRadius: 2 }}>
        <Box sx={{ width: `${first.share * 100}%`, height: 4, bgcolor: colours.sand, borderRadius: 2 }} />
      </Box>
      <Box sx={{ overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
        {first.paused ? t("Paused until the server works on: ") : ""}
        {verb} {first.about}
        {now.length > 1 && t(", {value} more", { value: now.length - 1 })}
      </Box>
      <Button
        onClick={() => {
          for (const job of now)
            void data(api.POST("/api/jobs/{id}/cancel/", { params: { path: { id: job.id } } }));
        }}
        sx={{ color: "inherit", minWidth: 0, px: 1 }}
      >
        {t("Cancel")}
      </Button>
    </Box>
  );
}

/** What there is to say of the connection. Changes that are not saved yet are kept, and sent again. */
function Connection() {
  const unsaved = useNotices((s) => s.unsaved);
  const saving = useNotices((s) => s.saving);
  const away = usePresent((s) => s.away);
  if (!unsaved && !away)
    return saving ? (
      <Box role="status" sx={{ fontSize: 12.5 }}>
        {t("Saving…")}
      </Box>
    ) : null;
  const { count, refused } = unsaved ?? { count: 0, refused: "" };
  const changes = count === 1 ? t("1 change") : t("{count} changes", { count });
  return (
    <Box
      role="status"
      sx={{
        fontSize: 12.5,
        fontWeight: 600,
        px: 1,
        py: 0.25,
        borderRadius: 1,
        bgcolor: colours.rustPale,
        color: colours.rust,
        whiteSpace: "nowrap",
      }}
    >
      {refused ? (
        <Tooltip title={refused}>
          <span>{t("{changes} kept: the server cannot save just now", { changes })}</span>
        </Tooltip>
      ) : (
        t("No connection{which}", {
          which: count ? t(": {changes} kept and saved when it is back", { changes }) : t(" to the server"),
        })
      )}
      {refused && (
        <Button onClick={discardFirst} sx={{ minHeight: 20, minWidth: 0, px: 0.75, ml: 0.5 }}>
          {t("Discard")}
        </Button>
      )}
    </Box>
  );
}

function SignOut() {
  const client = useQueryClient();
  const { data: session } = useSession();
  const [account, setAccount] = useState(false);
  const leave = async () => {
    await data(api.DELETE("/api/session/"));
    resetBoard();
    clearClipboard();
    clearHistory();
    // The session first, so that nobody on the page fetches again what is being forgotten.
    client.setQueryData(["session"], { username: "", administers: false });
    client.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
  };
  return (
    <Box sx={{ ml: "auto", display: "flex", alignItems: "center", gap: 1, fontSize: 12.5 }}>
      <Tooltip title={t("Your account: password, where you are signed in, tokens")}>
        <Button onClick={() => setAccount(true)} sx={{ color: "inherit", minWidth: 0 }}>
          {session?.username}
        </Button>
      </Tooltip>
      <Button onClick={() => void leave()} sx={{ color: "inherit" }}>
        {t("Sign out")}
      </Button>
      {account && session?.username && (
        <AccountDialog name={session.username} onClose={() => setAccount(false)} />
      )}
    </Box>
  );
}
