/**
 * Named groups of elements that views can be limited to: kept from what is picked or shown, shown again,
 * deleted.
 */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import OutlinedInput from "@mui/material/OutlinedInput";
import { useState } from "react";
import type { Subset } from "../../api/client";
import { commit } from "../../sync/commands";
import { useSubsets, useViews } from "../../api/views";
import { changing, deleting, making, newId, rows } from "../../sync/rows";
import { colours } from "../../theme/theme";
import type { SolidElement } from "./solid";
import { t } from "../../words/words";

interface Props {
  project: string;
  elements: readonly SolidElement[];
  /** What a new subset would hold. */
  chosen: readonly SolidElement[];
  onShow: (ids: readonly string[]) => void;
}

export function Subsets({ project, elements, chosen, onShow }: Props) {
  const { data: subsets = [] } = useSubsets(project);
  useViews(project); // which of them are limited to a subset has to be known when it is deleted
  const [name, setName] = useState("");

  const save = () => {
    const subset = { id: newId(), project, name: name.trim(), elements: chosen.map((e) => e.id) };
    setName("");
    void commit(project, t("keep {name}", { name: subset.name }), [making("subsets", subset)]);
  };
  // The views that it limited show everything once it is gone, and are limited again when it comes back.
  const drop = (subset: Subset) => {
    const limited = rows("views", project).filter((view) => view.subset === subset.id);
    return commit(project, t("delete {name}", { name: subset.name }), [
      ...limited.map((view) => changing("views", view, { subset: null })),
      deleting("subsets", subset),
    ]);
  };
  const there = new Set(elements.map((e) => e.id));

  return (
    <Box
      component="section"
      aria-label={t("Subsets")}
      sx={{ px: 1.25, py: 1, borderTop: `1px solid ${colours.sandDeep}`, fontSize: 12.5 }}
    >
      <Box sx={{ fontWeight: 650, mb: 0.25 }}>{t("Subsets")}</Box>
      {subsets.map((subset) => (
        <Box key={subset.id} sx={{ display: "flex", alignItems: "center" }}>
          <Button
            onClick={() => onShow(subset.elements)}
            sx={{ flex: 1, minWidth: 0, justifyContent: "flex-start", px: 0.5, ml: -0.5, minHeight: 24 }}
          >
            <Box component="span" sx={{ overflow: "hidden", textOverflow: "ellipsis" }}>
              {subset.name}
            </Box>
          </Button>
          <Box sx={{ color: "text.secondary", px: 0.5 }}>
            {subset.elements.filter((id) => there.has(id)).length}
          </Box>
          <Button
            aria-label={t("Delete subset {name}", { name: subset.name })}
            onClick={() => void drop(subset)}
            sx={{ minWidth: 0, px: 0.5, minHeight: 24 }}
          >
            ✕
          </Button>
        </Box>
      ))}
      {chosen.length > 0 ? (
        <Box
          component="form"
          onSubmit={(event) => {
            event.preventDefault();
            if (name.trim()) save();
          }}
          sx={{ display: "flex", gap: 0.5, mt: 0.5 }}
        >
          <OutlinedInput
            size="small"
            fullWidth
            placeholder={t("Name for these {count}", { count: chosen.length })}
            value={name}
            onChange={(event) => setName(event.target.value)}
            inputProps={{ "aria-label": t("Name of the new subset"), maxLength: 200 }}
          />
          <Button type="submit" variant="outlined" disabled={!name.trim()} sx={{ minWidth: 0 }}>
            {t("Save")}
          </Button>
        </Box>
      ) : (
        <Box sx={{ color: "text.secondary" }}>
          {t("Pick elements (Shift for more), or hide what is not wanted, and save them by name.")}
        </Box>
      )}
    </Box>
  );
}
