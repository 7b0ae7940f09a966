/** The colours that materials have in pictures: the file's, or the project's own. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";
import type { ModelVersion, Register } from "../../api/client";
import { TitledDialog } from "../../components/TitledDialog";
import { commit } from "../../sync/commands";
import { changing } from "../../sync/rows";

interface Props {
  register: Register;
  version: ModelVersion | undefined;
  onClose: () => void;
}

export function Palette({ register, version, onClose }: Props) {
  const [own, setOwn] = useState(register.palette);
  const given = version?.facts.colours ?? {};
  const all = new Set([...Object.keys(given), ...Object.keys(own)]);
  const materials = [...all].sort((a, b) => a.localeCompare(b));
  const save = () => {
    if (JSON.stringify(own) !== JSON.stringify(register.palette))
      void commit(register.project, "colours of materials", [
        changing("registers", register, { palette: own }),
      ]);
    onClose();
  };
  return (
    <TitledDialog
      title="Colours of materials"
      text="In all pictures of this project. As given: as the file has it, or as suits the material’s name."
      width="xs"
      onClose={onClose}
      onSubmit={save}
      foot={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" variant="contained">
            Save
          </Button>
        </>
      }
    >
      {materials.length === 0 && (
        <Box sx={{ fontSize: 13, color: "text.secondary" }}>
          This version of the building was read before colours were. Import it again to see its materials.
        </Box>
      )}
      <Box sx={{ maxHeight: "50vh", overflowY: "auto", display: "grid", gap: 0.5 }}>
        {materials.map((name) => {
          const { [name]: changed, ...others } = own;
          return (
            <Box
              key={name}
              sx={{ display: "flex", alignItems: "center", gap: 1, minHeight: 32, fontSize: 13 }}
            >
              <Box
                component="input"
                type="color"
                aria-label={`Colour of ${name}`}
                value={changed ?? given[name] ?? "#dbd9d4"}
                onChange={(event) => setOwn({ ...own, [name]: event.target.value })}
                sx={{ width: 40, height: 26, p: 0, border: 0, bgcolor: "transparent" }}
              />
              <Box sx={{ flex: 1 }}>{name}</Box>
              {changed !== undefined && (
                <Button sx={{ minHeight: 26, px: 1 }} onClick={() => setOwn(others)}>
                  As given
                </Button>
              )}
            </Box>
          );
        })}
      </Box>
    </TitledDialog>
  );
}
