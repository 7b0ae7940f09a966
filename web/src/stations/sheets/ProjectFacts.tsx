/** What every title block says of the project; edited in one place. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type Project } from "../../api/client";

const FIELDS = [
  ["name", "Project"],
  ["number", "Project number"],
  ["client", "Client"],
  ["site", "Site"],
  ["practice", "Practice"],
] as const;

export function ProjectFacts({ project, onClose }: { project: Project; onClose: () => void }) {
  const client = useQueryClient();
  const [typed, setTyped] = useState(() => Object.fromEntries(FIELDS.map(([key]) => [key, project[key]])));
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PATCH("/api/projects/{id}/", {
          params: { path: { id: project.id } },
          body: { ...typed, version: project.version },
        }),
      ),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["projects"] });
      void client.invalidateQueries({ queryKey: ["display"] });
      onClose();
    },
  });
  return (
    <Dialog open onClose={onClose} maxWidth="xs" fullWidth>
      <Box
        component="form"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
        sx={{ p: 2.5, display: "flex", flexDirection: "column", gap: 1.75 }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: 15, fontWeight: 650 }}>
          On every sheet of this project
        </Box>
        {save.error && <Alert severity="error">{save.error.message}</Alert>}
        {FIELDS.map(([key, label], k) => (
          <TextField
            key={key}
            label={label}
            autoFocus={k === 0}
            required={key === "name"}
            value={typed[key]}
            onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
            slotProps={{ htmlInput: { maxLength: key === "number" ? 40 : 200 } }}
          />
        ))}
        <Box sx={{ display: "flex", justifyContent: "flex-end", gap: 1 }}>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            Save
          </Button>
        </Box>
      </Box>
    </Dialog>
  );
}
