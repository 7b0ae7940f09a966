/** All projects of the one who is signed in. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { NameDialog } from "../../components/NameDialog";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router-dom";
import { api, data, type Project } from "../../api/client";
import { useProjects } from "../../api/projects";
import { useSheets, useViewports } from "../../api/sheets";
import { Header } from "../../components/Header";
import { colours } from "../../theme/theme";
import { SheetThumbnail } from "../../components/Thumbnail";
import { notifyError } from "../../stores/notices";
import { ShareDialog } from "./ShareDialog";
import { t } from "../../words/words";

export function ProjectsPage() {
  const { data: projects, error } = useProjects();
  const current = projects?.filter((p) => !p.archived);
  const archived = projects?.filter((p) => p.archived) ?? [];
  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column" }}>
      <Header />
      <Box component="main" sx={{ flex: 1, overflowY: "auto", bgcolor: colours.sand, px: 5, py: 4 }}>
        <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", mb: 2.5, gap: 2 }}>
          <Box component="h1" sx={{ m: 0, fontSize: 20, fontWeight: 650 }}>
            {t("Projects")}
          </Box>
          <NewProject />
        </Box>
        {error && <Alert severity="error">{error.message}</Alert>}
        {current?.length === 0 && <Box>{t("There is no project yet. Name the first one and add it.")}</Box>}
        <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(348px, 1fr))", gap: 2.5 }}>
          {current?.map((project) => (
            <ProjectCard key={project.id} project={project} />
          ))}
        </Box>
        {archived.length > 0 && (
          <Box component="section" aria-label={t("Archived projects")} sx={{ mt: 4 }}>
            <Box component="h2" sx={{ m: 0, mb: 1.5, fontSize: 14, fontWeight: 650 }}>
              {t("Archived")}
            </Box>
            <Box
              sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(348px, 1fr))", gap: 2.5 }}
            >
              {archived.map((project) => (
                <ProjectCard key={project.id} project={project} />
              ))}
            </Box>
          </Box>
        )}
      </Box>
    </Box>
  );
}

function ProjectCard({ project }: { project: Project }) {
  const { data: sheets } = useSheets(project.id);
  const { data: viewports = [] } = useViewports(project.id);
  return (
    <Box sx={{ position: "relative", opacity: project.archived ? 0.8 : 1 }}>
      <ProjectMenu project={project} />
      <Box
        component={Link}
        to={`/projects/${project.id}/${sheets?.length ? "sheets" : "model"}`}
        sx={{
          display: "block",
          // As high as its neighbours: what can be done with it stands at the foot of each.
          height: "100%",
          boxSizing: "border-box",
          p: 2,
          pb: 5,
          bgcolor: colours.sandPale,
          border: `1px solid ${colours.sandDeep}`,
          borderRadius: 1,
          color: "inherit",
          textDecoration: "none",
          "&:hover": { borderColor: colours.sandShade, boxShadow: "0 3px 12px rgba(74, 60, 34, 0.16)" },
          "&:focus-visible": { outline: `2px solid ${colours.rust}` },
        }}
      >
        <Box sx={{ display: "flex", gap: 1, mb: 1.25, height: 106, overflow: "hidden" }}>
          {sheets?.slice(0, 2).map((sheet) => (
            <Box key={sheet.id} sx={{ border: `1px solid ${colours.sandDeep}`, alignSelf: "flex-start" }}>
              <SheetThumbnail
                sheet={sheet.id}
                viewports={viewports.filter((v) => v.sheet === sheet.id)}
                width={146}
              />
            </Box>
          ))}
          {sheets?.length === 0 && (
            <Box sx={{ alignSelf: "center", color: "text.secondary" }}>{t("No sheets yet")}</Box>
          )}
        </Box>
        <Box sx={{ fontSize: 15, fontWeight: 650 }}>{project.name}</Box>
        {/* It has its line before its words are known: nothing moves away under a click. */}
        <Box sx={{ fontSize: 12.5, lineHeight: 1.5, minHeight: "1.5em", color: "text.secondary" }}>
          {[
            project.number,
            project.client,
            sheets && (sheets.length === 1 ? t("1 sheet") : t("{count} sheets", { count: sheets.length })),
          ]
            .filter(Boolean)
            .join(" · ")}
        </Box>
      </Box>
    </Box>
  );
}

/** What can be done with a project from outside it: another name, and into the archive or out of it. */
function ProjectMenu({ project }: { project: Project }) {
  const client = useQueryClient();
  const [name, setName] = useState<string | null>(null);
  const write = async (change: Partial<Pick<Project, "name" | "archived">>) => {
    setName(null);
    try {
      await data(
        api.PATCH("/api/projects/{id}/", {
          params: { path: { id: project.id } },
          body: { ...change, version: project.version },
        }),
      );
    } catch (error) {
      notifyError(error);
    }
    await client.invalidateQueries({ queryKey: ["projects"] });
  };
  const [sharing, setSharing] = useState(false);
  const small = { minHeight: 24, px: 0.75, minWidth: 0, fontSize: 12 };
  return (
    <Box sx={{ position: "absolute", left: 10, bottom: 8, display: "flex", zIndex: 1 }}>
      {project.own && (
        <Button
          aria-label={t("Share {name}", { name: project.name })}
          onClick={() => setSharing(true)}
          sx={small}
        >
          {project.members.length
            ? t("Shared with {members}", { members: project.members.length })
            : t("Share")}
        </Button>
      )}
      {sharing && <ShareDialog project={project} onClose={() => setSharing(false)} />}
      <Button
        aria-label={t("Rename {name}", { name: project.name })}
        onClick={() => setName(project.name)}
        sx={small}
      >
        {t("Rename")}
      </Button>
      <Button
        aria-label={`${project.archived ? t("Restore") : t("Archive")} ${project.name}`}
        onClick={() => void write({ archived: !project.archived })}
        sx={small}
      >
        {project.archived ? t("Restore") : t("Archive")}
      </Button>
      <NameDialog
        label={t("Name")}
        action={t("Rename")}
        name={name}
        onName={setName}
        onDone={(whole) => void write({ name: whole })}
      />
    </Box>
  );
}

function NewProject() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const add = useMutation({
    mutationFn: () => data(api.POST("/api/projects/", { body: { name } })),
    onSuccess: (project) => {
      void client.invalidateQueries({ queryKey: ["projects"] });
      void navigate(`/projects/${project.id}/model`);
    },
  });
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
      sx={{ display: "flex", gap: 1, alignItems: "center" }}
    >
      {add.error && <Alert severity="error">{add.error.message}</Alert>}
      <TextField
        placeholder={t("Name of a new project")}
        value={name}
        onChange={(e) => setName(e.target.value)}
        required
        slotProps={{ htmlInput: { "aria-label": t("Name of a new project"), maxLength: 200 } }}
        sx={{ width: 240 }}
      />
      <Button type="submit" variant="contained" disabled={add.isPending}>
        {t("Add project")}
      </Button>
    </Box>
  );
}
