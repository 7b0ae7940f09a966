/** Named treatments: one is given to what is chosen, the present one is kept by name, one is deleted. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";
import Tooltip from "@mui/material/Tooltip";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type NamedTreatment } from "../../api/client";
import { useTreatments } from "../../api/queries";
import { newId } from "../../api/rows";
import { useDesk } from "../../board/desk";
import { ChoiceField } from "../../parts/ChoiceField";
import type { Treatment } from "./kinds";

/** The usual treatment, written out: what a named one does not say is put back to this. */
const USUAL: Required<Treatment> = { crease: 20, seams: false, hidden: false, overhead: false, far: null, bands: [] };
const whole = (treatment: Treatment) => ({ ...USUAL, ...treatment });
const alike = (a: Treatment, b: Treatment) => JSON.stringify(whole(a)) === JSON.stringify(whole(b));

interface Props {
  project: string;
  /** The treatment that there is now; undefined where several differ. */
  treatment: Treatment | undefined;
  onGive: (treatment: Treatment, name: string) => void;
}

export function TreatmentField({ project, treatment, onGive }: Props) {
  const client = useQueryClient();
  const { data: named = [] } = useTreatments(project);
  const [name, setName] = useState<string | null>(null);
  const { done, say } = useDesk.getState();
  const now = treatment && named.find((t) => alike(t.treatment, treatment));

  const write = async (deed: () => Promise<unknown>) => {
    await deed();
    await client.invalidateQueries({ queryKey: ["treatments", project] });
  };
  const add = (row: Pick<NamedTreatment, "id" | "name" | "treatment">) => () => write(() => data(api.POST("/api/treatments/", { body: { ...row, project } })));
  const remove = (id: string) => () => write(() => data(api.DELETE("/api/treatments/{id}/", { params: { path: { id } } })));
  const told = (error: unknown) => say(error instanceof Error ? error.message : String(error), true);

  const keep = () => {
    if (!name?.trim() || !treatment) return;
    const row = { id: newId(), name: name.trim(), treatment };
    setName(null);
    add(row)().then(() => done({ what: `keep the treatment ${row.name}`, undo: remove(row.id), redo: add(row) }), told);
  };
  const drop = (row: NamedTreatment) =>
    remove(row.id)().then(() => done({ what: `delete the treatment ${row.name}`, undo: add(row), redo: remove(row.id) }), told);

  return (
    <Box sx={{ display: "flex", alignItems: "flex-end" }}>
      <ChoiceField
        label="Treatment"
        width={118}
        value={now?.id ?? ""}
        choices={[["", treatment ? (alike(treatment, USUAL) ? "Usual" : "Its own") : "Several"], ...named.map((t) => [t.id, t.name] as const)]}
        onChoose={(id) => {
          const chosen = named.find((t) => t.id === id);
          onGive(whole(chosen?.treatment ?? {}), chosen?.name ?? "usual");
        }}
      />
      {now ? (
        <Tooltip title="Delete this named treatment; views keep their lines as they are">
          <Button onClick={() => void drop(now)} sx={{ minWidth: 0, px: 0.75 }}>
            Forget
          </Button>
        </Tooltip>
      ) : (
        treatment && (
          <Tooltip title="Keep this treatment by name, to give it to other views">
            <Button onClick={() => setName("")} sx={{ minWidth: 0, px: 0.75 }}>
              Keep
            </Button>
          </Tooltip>
        )
      )}
      <Dialog open={name !== null} onClose={() => setName(null)} transitionDuration={0} maxWidth="xs" fullWidth>
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault();
            keep();
          }}
          sx={{ p: 2.5, display: "flex", gap: 1, alignItems: "center" }}
        >
          <TextField label="Name of the treatment" autoFocus fullWidth value={name ?? ""} onChange={(event) => setName(event.target.value)} slotProps={{ htmlInput: { maxLength: 200 } }} />
          <Button type="submit" variant="contained" disabled={!name?.trim()}>
            Keep
          </Button>
        </Box>
      </Dialog>
    </Box>
  );
}
