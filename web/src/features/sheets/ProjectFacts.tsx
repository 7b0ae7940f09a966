/** What every title block says of the project; edited in one place. */
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type Picture, type Project, type Register } from "../../api/client";
import { TitledDialog } from "../../components/TitledDialog";
import { PictureField } from "./PictureField";
import { t } from "../../words/words";

const FIELDS = [
  ["name", t("Project")],
  ["number", t("Project number")],
  ["client", t("Client")],
  ["site", t("Site")],
  ["practice", t("Practice")],
  ["department", t("Department")],
  ["reference", t("Technical reference")],
  ["language", t("Language")],
] as const;
const MAX_LENGTH: Partial<Record<string, number>> = { number: 40, language: 40 };

export function ProjectFacts({
  project,
  register,
  pictures,
  onClose,
}: {
  project: Project;
  register: Register;
  pictures: readonly Picture[];
  onClose: () => void;
}) {
  const [logo, setLogo] = useState(register.logo ?? "");
  const [pattern, setPattern] = useState(register.number_pattern);
  const client = useQueryClient();
  const [typed, setTyped] = useState(() => Object.fromEntries(FIELDS.map(([key]) => [key, project[key]])));
  const save = useMutation({
    mutationFn: async () => {
      const ofSet = { number_pattern: pattern, logo: logo || null };
      if (ofSet.number_pattern !== register.number_pattern || ofSet.logo !== register.logo)
        await data(
          api.PATCH("/api/registers/{id}/", {
            params: { path: { id: register.id } },
            body: { ...ofSet, version: register.version },
          }),
        );
      await data(
        api.PATCH("/api/projects/{id}/", {
          params: { path: { id: project.id } },
          body: { ...typed, version: project.version },
        }),
      );
    },
    onError: () => void client.invalidateQueries({ queryKey: ["registers"] }),
    onSuccess: () => {
      void client.invalidateQueries({ queryKey: ["projects"] });
      for (const key of ["registers", "display", "number-warnings"])
        void client.invalidateQueries({ queryKey: [key] });
      onClose();
    },
  });
  return (
    <TitledDialog
      title={t("On every sheet of this project")}
      onClose={onClose}
      onSubmit={() => save.mutate()}
      foot={
        <>
          <Button onClick={onClose}>{t("Cancel")}</Button>
          <Button type="submit" variant="contained" disabled={save.isPending}>
            {t("Save")}
          </Button>
        </>
      }
    >
      {save.error && <Alert severity="error">{save.error.message}</Alert>}
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.75 }}>
        {FIELDS.map(([key, label], k) => (
          <TextField
            key={key}
            label={label}
            autoFocus={k === 0}
            required={key === "name"}
            value={typed[key]}
            onChange={(event) => setTyped({ ...typed, [key]: event.target.value })}
            helperText={key === "language" && t("Title blocks and names of new views: en or de")}
            slotProps={{ htmlInput: { maxLength: MAX_LENGTH[key] ?? 200 } }}
          />
        ))}
        <TextField
          label={t("Numbers of sheets")}
          value={pattern}
          onChange={(event) => setPattern(event.target.value)}
          helperText={t("Such as {discipline}-{type}{n:02} or A-{n:02}")}
          slotProps={{ htmlInput: { maxLength: 40 } }}
        />
        <PictureField
          project={project.id}
          pictures={pictures}
          label={t("Logo")}
          value={logo}
          first={["", t("None")]}
          width="100%"
          onChoose={setLogo}
        />
      </Box>
    </TitledDialog>
  );
}
