/** Named treatments: one is given to what is chosen, the present one is kept by name, one is deleted. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";
import Tooltip from "@mui/material/Tooltip";
import { useState } from "react";
import type { NamedTreatment } from "../../api/client";
import { commit } from "../../api/deeds";
import { useTreatments } from "../../api/queries";
import { deleting, making, newId } from "../../api/rows";
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
  const { data: named = [] } = useTreatments(project);
  const [name, setName] = useState<string | null>(null);
  const now = treatment && named.find((t) => alike(t.treatment, treatment));

  const keep = () => {
    if (!name?.trim() || !treatment) return;
    const row = { id: newId(), project, name: name.trim(), treatment };
    setName(null);
    void commit(project, `keep the treatment ${row.name}`, [making("treatments", row)]);
  };
  const drop = (row: NamedTreatment) => commit(project, `delete the treatment ${row.name}`, [deleting("treatments", row)]);

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
