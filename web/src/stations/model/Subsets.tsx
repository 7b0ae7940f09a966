/** Named groups of elements that views can be limited to: kept from what is picked or shown, shown again, deleted. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, data, type Subset } from "../../api/client";
import { useSubsets, useViews } from "../../api/queries";
import { newId, rows } from "../../api/rows";
import { useDesk } from "../../board/desk";
import { colours } from "../../theme/theme";
import { writeView } from "../views/edits";
import type { SolidElement } from "./solid";

interface Props {
  project: string;
  elements: readonly SolidElement[];
  /** What a new subset would hold. */
  chosen: readonly SolidElement[];
  onShow: (ids: readonly string[]) => void;
}

export function Subsets({ project, elements, chosen, onShow }: Props) {
  const client = useQueryClient();
  const { data: subsets = [] } = useSubsets(project);
  useViews(project); // which of them are limited to a subset has to be known when it is deleted
  const [name, setName] = useState("");
  const { done, say } = useDesk.getState();

  const write = async (deed: () => Promise<unknown>) => {
    await deed();
    for (const key of ["subsets", "views", "jobs"]) await client.invalidateQueries({ queryKey: [key, project] });
  };
  const add = (subset: Pick<Subset, "id" | "name" | "elements">) => () => write(() => data(api.POST("/api/subsets/", { body: { ...subset, project } })));
  const remove = (id: string) => () => write(() => data(api.DELETE("/api/subsets/{id}/", { params: { path: { id } } })));
  const told = (error: unknown) => say(error instanceof Error ? error.message : String(error), true);

  const keep = () => {
    const subset = { id: newId(), name: name.trim(), elements: chosen.map((e) => e.id) };
    setName("");
    add(subset)().then(() => done({ what: `keep ${subset.name}`, undo: remove(subset.id), redo: add(subset) }), told);
  };
  const drop = (subset: Subset) => {
    const limited = rows("views", project).filter((view) => view.subset === subset.id);
    const restore = async () => {
      await add(subset)();
      for (const view of limited) await writeView(project, view.id, { subset: subset.id });
    };
    return remove(subset.id)().then(() => done({ what: `delete ${subset.name}`, undo: restore, redo: remove(subset.id) }), told);
  };
  const there = new Set(elements.map((e) => e.id));

  return (
    <Box component="section" aria-label="Subsets" sx={{ px: 1.25, py: 1, borderTop: `1px solid ${colours.sandDeep}`, fontSize: 12.5 }}>
      <Box sx={{ fontWeight: 650, mb: 0.25 }}>Subsets</Box>
      {subsets.map((subset) => (
        <Box key={subset.id} sx={{ display: "flex", alignItems: "center" }}>
          <Button onClick={() => onShow(subset.elements)} sx={{ flex: 1, minWidth: 0, justifyContent: "flex-start", px: 0.5, ml: -0.5, minHeight: 24 }}>
            <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis" }}>
              {subset.name}
            </Box>
          </Button>
          <Box sx={{ color: "text.secondary", px: 0.5 }}>{subset.elements.filter((id) => there.has(id)).length}</Box>
          <Button aria-label={`Delete subset ${subset.name}`} onClick={() => void drop(subset)} sx={{ minWidth: 0, px: 0.5, minHeight: 24 }}>
            ✕
          </Button>
        </Box>
      ))}
      {chosen.length > 0 ? (
        <Box component="form" onSubmit={(event) => { event.preventDefault(); if (name.trim()) keep(); }} sx={{ display: "flex", gap: 0.5, mt: 0.5 }}>
          <OutlinedInput size="small" fullWidth placeholder={`Name for these ${chosen.length}`} value={name} onChange={(event) => setName(event.target.value)} inputProps={{ "aria-label": "Name of the new subset", maxLength: 200 }} />
          <Button type="submit" variant="outlined" disabled={!name.trim()} sx={{ minWidth: 0 }}>
            Keep
          </Button>
        </Box>
      ) : (
        <Box sx={{ color: "text.secondary" }}>Pick elements (Shift for more), or hide what is not wanted, and keep them by name.</Box>
      )}
    </Box>
  );
}
