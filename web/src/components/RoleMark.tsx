/** What one is in a project, where one may not change it; and who may. */
import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import type { Project } from "../api/client";
import { may, refusal } from "../sync/roles";
import { colours } from "../theme/theme";
import { ROLE_NAMES } from "./roleNames";

export function RoleMark({ project }: { project: Project }) {
  if (may(project, "draw")) return null;
  return (
    <Tooltip title={refusal(project, "draw")}>
      <Box
        tabIndex={0}
        aria-label={refusal(project, "draw")}
        role="note"
        sx={{
          px: 1,
          py: 0.25,
          fontSize: 12,
          fontWeight: 650,
          borderRadius: 1,
          color: colours.ink,
          bgcolor: colours.sand,
        }}
      >
        {ROLE_NAMES[project.role]}
      </Box>
    </Tooltip>
  );
}
