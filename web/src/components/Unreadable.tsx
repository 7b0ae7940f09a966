/** What of a project was damaged where it is stored, by name: lists and sheets are made without it. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, data, type UnreadableRow } from "../api/client";
import { notifyError } from "../stores/notices";
import { colours } from "../theme/theme";
import { said } from "../words/said";
import { t } from "../words/words";
import { TitledDialog } from "./TitledDialog";

/** All rows are read for it: what the page begins with comes first. Milliseconds. */
const ASK_AFTER = 2_000;

export function Unreadable({ project }: { project: string }) {
  const [open, setOpen] = useState(false);
  const [enabled, setEnabled] = useState(false);
  useEffect(() => {
    const waiting = setTimeout(() => setEnabled(true), ASK_AFTER);
    return () => clearTimeout(waiting);
  }, []);
  const { data: found } = useQuery({
    enabled,
    queryKey: ["unreadable", project],
    queryFn: () => data(api.GET("/api/unreadable/", { params: { query: { project } } })),
    // Nobody damages data while a page is open; what is told then comes with the next.
    staleTime: Infinity,
  });
  if (!found?.length) return null;
  return (
    <>
      <Button
        onClick={() => setOpen(true)}
        sx={{
          fontSize: 12.5,
          fontWeight: 600,
          px: 1,
          minHeight: 24,
          height: 24,
          whiteSpace: "nowrap",
          bgcolor: colours.rustPale,
          color: colours.rust,
          "&:hover": { bgcolor: colours.rustPale, textDecoration: "underline" },
        }}
      >
        {t("{count} unreadable", { count: found.length })}
      </Button>
      {open && <UnreadableDialog project={project} rows={found} onClose={() => setOpen(false)} />}
    </>
  );
}

interface Props {
  project: string;
  rows: readonly UnreadableRow[];
  onClose: () => void;
}

function UnreadableDialog({ project, rows, onClose }: Props) {
  const client = useQueryClient();
  const remove = async ({ rows: kind, id, name }: UnreadableRow) => {
    const step = { rows: kind, id, version: 0, row: null };
    try {
      await data(api.POST("/api/changes/", { body: { what: t("delete {name}", { name }), steps: [step] } }));
      await client.invalidateQueries({ queryKey: ["unreadable", project] });
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <TitledDialog
      title={t("Unreadable data")}
      text={t(
        "This was damaged where it is stored, and sheets are composed without it. " +
          "A backup brings it back; what is deleted is gone for good.",
      )}
      width="md"
      onClose={onClose}
      foot={
        <Button variant="contained" onClick={onClose}>
          {t("Close")}
        </Button>
      }
    >
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none", overflowY: "auto", maxHeight: 440 }}>
        {rows.map((row) => {
          const name = said(row.name);
          return (
            <Box
              component="li"
              key={row.id}
              sx={{
                display: "flex",
                alignItems: "center",
                gap: 1.5,
                py: 0.75,
                fontSize: 13,
                borderBottom: `1px solid ${colours.sandDeep}`,
              }}
            >
              <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
                <Box sx={{ fontWeight: 600 }}>{name.slice(0, 1).toUpperCase() + name.slice(1)}</Box>
                <Box sx={{ color: "text.secondary" }}>{said(row.why)}</Box>
              </Box>
              <Button
                variant="outlined"
                aria-label={t("Delete {name}", { name })}
                onClick={() => void remove(row)}
              >
                {t("Delete")}
              </Button>
            </Box>
          );
        })}
      </Box>
    </TitledDialog>
  );
}
