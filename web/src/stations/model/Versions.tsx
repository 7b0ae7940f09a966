/** The versions of the model, and the way back to an older one. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useQueryClient } from "@tanstack/react-query";
import { api, data, type ModelVersion } from "../../api/client";
import { useDesk } from "../../board/desk";
import { Panel } from "../../parts/Panel";
import { colours } from "../../theme/theme";

export function Versions({ versions }: { versions: ModelVersion[] }) {
  const client = useQueryClient();
  const say = useDesk((s) => s.say);
  const take = async (version: ModelVersion) => {
    try {
      await data(api.POST("/api/model-versions/{id}/take/", { params: { path: { id: version.id } } }));
      for (const key of ["model-versions", "views"]) await client.invalidateQueries({ queryKey: [key] });
      say(`The drawings follow version ${version.number} again. The later ones are kept.`);
    } catch (error) {
      say(error instanceof Error ? error.message : String(error), true);
    }
  };
  return (
    <Panel name="Versions">
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {versions.map((version, k) => (
          <Box component="li" key={version.id} sx={{ py: 0.75, borderTop: k ? `1px solid ${colours.sand}` : "none", display: "flex", gap: 1 }}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>
                {version.number} · {version.file_name}
              </Box>
              <Box sx={{ fontSize: 12, color: "text.secondary" }}>
                {version.taken_from && `version ${version.taken_from} taken again · `}
                {new Date(version.created).toLocaleString()} · {version.created_by} · {(version.file_size / 1024 / 1024).toFixed(2)} MB
              </Box>
            </Box>
            {k > 0 && (
              <Tooltip title="Make this version the newest once more; nothing is lost">
                <Button aria-label={`Go back to version ${version.number}`} onClick={() => void take(version)} sx={{ alignSelf: "center", px: 1 }}>
                  Go back
                </Button>
              </Tooltip>
            )}
          </Box>
        ))}
      </Box>
    </Panel>
  );
}
