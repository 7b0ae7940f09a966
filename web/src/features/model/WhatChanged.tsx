/** What changed since the version before: elements added, removed, moved and reshaped. */
import Box from "@mui/material/Box";
import type { ModelVersion } from "../../api/client";
import { Panel } from "../../components/Panel";
import { CHANGE_COLOURS } from "./changes";
import { t } from "../../words/words";

type Changes = NonNullable<ModelVersion["changes"]>;
const KINDS = ["added", "removed", "moved", "reshaped"] as const;
const WORDS: Record<(typeof KINDS)[number], string> = {
  added: t("added"),
  removed: t("removed"),
  moved: t("moved"),
  reshaped: t("reshaped"),
};
const MAX_LISTED = 40;

export function WhatChanged({ changes }: { changes: Changes }) {
  const some = KINDS.filter((kind) => changes[kind].length);
  return (
    <Panel name={t("What changed")}>
      {!some.length && (
        <Box sx={{ color: "text.secondary" }}>{t("Nothing changed since the version before.")}</Box>
      )}
      {some.map((kind) => (
        <Box key={kind} sx={{ mb: 1 }}>
          <Box sx={{ fontSize: 12.5, fontWeight: 650, display: "flex", alignItems: "center", gap: 0.75 }}>
            <Box
              component="span"
              aria-hidden
              sx={{ width: 10, height: 10, borderRadius: "2px", bgcolor: CHANGE_COLOURS[kind] }}
            />
            {changes[kind].length} {WORDS[kind]}
          </Box>
          <Box component="ul" sx={{ m: 0, pl: 2.25, listStyle: "none", fontSize: 12.5 }}>
            {changes[kind].slice(0, MAX_LISTED).map((element) => (
              <li key={element.id}>
                <span>{element.name || element.id}</span>{" "}
                <Box component="span" sx={{ color: "text.secondary" }}>
                  {element.class}
                </Box>
              </li>
            ))}
            {changes[kind].length > MAX_LISTED && (
              <li>{t("and {max_listed} more", { max_listed: changes[kind].length - MAX_LISTED })}</li>
            )}
          </Box>
        </Box>
      ))}
    </Panel>
  );
}
