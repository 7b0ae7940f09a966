/** The versions of the model, and the way back to an older one. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import { useQueryClient } from "@tanstack/react-query";
import { api, data, type ModelVersion } from "../../api/client";
import { Panel } from "../../components/Panel";
import { colours } from "../../theme/theme";
import { useMoments } from "../../components/moments";
import { notify, notifyError } from "../../stores/notices";
import { t } from "../../words/words";

export function Versions({ versions }: { versions: ModelVersion[] }) {
  const { momentOf } = useMoments();
  const client = useQueryClient();
  const restore = async (version: ModelVersion) => {
    try {
      await data(api.POST("/api/model-versions/{id}/restore/", { params: { path: { id: version.id } } }));
      for (const key of ["model-versions", "views"]) await client.invalidateQueries({ queryKey: [key] });
      notify(
        t("The drawings follow version {number} again. The later ones are kept.", { number: version.number }),
      );
    } catch (error) {
      notifyError(error);
    }
  };
  return (
    <Panel name={t("Versions")}>
      <Box component="ol" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {versions.map((version, k) => (
          <Box
            component="li"
            key={version.id}
            sx={{ py: 0.75, borderTop: k ? `1px solid ${colours.sand}` : "none", display: "flex", gap: 1 }}
          >
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <Box sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>
                {version.number} · {version.file_name}
              </Box>
              <Box sx={{ fontSize: 12, color: "text.secondary" }}>
                {t("{restored}{created} · {createdBy} · {fileSize} MB", {
                  restored:
                    version.restored_from &&
                    t("version {restoredFrom} restored · ", { restoredFrom: version.restored_from }),
                  created: momentOf(version.created),
                  createdBy: version.created_by,
                  fileSize: (version.file_size / 1024 / 1024).toFixed(2),
                })}
              </Box>
            </Box>
            {k > 0 && (
              <Tooltip title={t("Use this version again; the later ones are kept")}>
                <Button
                  aria-label={t("Restore version {number}", { number: version.number })}
                  onClick={() => void restore(version)}
                  sx={{ alignSelf: "center", px: 1 }}
                >
                  {t("Restore")}
                </Button>
              </Tooltip>
            )}
          </Box>
        ))}
      </Box>
    </Panel>
  );
}
