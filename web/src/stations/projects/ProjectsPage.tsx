/** All projects of the one who is signed in. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router-dom";
import { api, data, type Project } from "../../api/client";
import { useProjects, useSheets, useViewports } from "../../api/queries";
import { Header } from "../../parts/Header";
import { colours } from "../../theme/theme";
import { SheetThumbnail } from "../../parts/Thumbnail";

export function ProjectsPage() {
  const { data: projects, error } = useProjects();
  return (
    <Box sx={{ height: "100%", display: "flex", flexDirection: "column" }}>
      <Header />
      <Box component="main" sx={{ flex: 1, overflowY: "auto", bgcolor: colours.sand, px: 5, py: 4 }}>
        <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", mb: 2.5, gap: 2 }}>
          <Box component="h1" sx={{ m: 0, fontSize: 20, fontWeight: 650 }}>
            Projects
          </Box>
          <NewProject />
        </Box>
        {error && <Alert severity="error">{error.message}</Alert>}
        {projects?.length === 0 && <Box>There is no project yet. Name the first one and add it.</Box>}
        <Box sx={{ display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(348px, 1fr))", gap: 2.5 }}>
          {projects?.map((project) => <ProjectCard key={project.id} project={project} />)}
        </Box>
      </Box>
    </Box>
  );
}

function ProjectCard({ project }: { project: Project }) {
  const { data: sheets } = useSheets(project.id);
  const { data: viewports = [] } = useViewports(project.id);
  return (
    <Box
      component={Link}
      to={`/projects/${project.id}/${sheets?.length ? "sheets" : "model"}`}
      sx={{
        display: "block",
        p: 2,
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
            <SheetThumbnail sheet={sheet.id} viewports={viewports.filter((v) => v.sheet === sheet.id)} width={146} />
          </Box>
        ))}
        {sheets?.length === 0 && <Box sx={{ alignSelf: "center", color: "text.secondary" }}>No sheets yet</Box>}
      </Box>
      <Box sx={{ fontSize: 15, fontWeight: 650 }}>{project.name}</Box>
      <Box sx={{ fontSize: 12.5, color: "text.secondary" }}>
        {[project.number, project.client, sheets && `${sheets.length} ${sheets.length === 1 ? "sheet" : "sheets"}`].filter(Boolean).join(" · ")}
      </Box>
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
        placeholder="Name of a new project"
        value={name}
        onChange={(e) => setName(e.target.value)}
        required
        slotProps={{ htmlInput: { "aria-label": "Name of a new project", maxLength: 200 } }}
        sx={{ width: 240 }}
      />
      <Button type="submit" variant="contained" disabled={add.isPending}>
        Add project
      </Button>
    </Box>
  );
}
