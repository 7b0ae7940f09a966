/** The register: the sheets of the set in their order. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Tooltip from "@mui/material/Tooltip";
import type { Sheet, View, Viewport } from "../../api/client";
import { useDesk } from "../../board/desk";
import { StateMark } from "../../parts/StateMark";
import { colours } from "../../theme/theme";
import { SheetThumbnail } from "../../parts/Thumbnail";

export const REGISTER_WIDTH = 204;

interface Props {
  sheets: Sheet[];
  viewports: Viewport[];
  views: View[];
  open: string;
  onOpen: (id: string) => void;
  onAdd: () => void;
}

export function Register({ sheets, viewports, views, open, onOpen, onAdd }: Props) {
  const states = new Map(views.map((v) => [v.id, v.state]));
  return (
    <Box
      component="nav"
      aria-label="Register"
      sx={{ width: REGISTER_WIDTH, flexShrink: 0, display: "flex", flexDirection: "column", bgcolor: "background.default" }}
    >
      <Box sx={{ px: 1.5, pt: 1.25, pb: 0.75, display: "flex", alignItems: "baseline", justifyContent: "space-between" }}>
        <Box component="h2" sx={{ m: 0, fontSize: 13, fontWeight: 650 }}>
          Register
        </Box>
        <Box sx={{ fontSize: 11.5, color: "text.secondary" }}>
          {sheets.length} {sheets.length === 1 ? "sheet" : "sheets"}
        </Box>
      </Box>
      <Box sx={{ flex: 1, overflowY: "auto", px: 1, pb: 1 }}>
        {sheets.map((sheet) => {
          const on = viewports.filter((v) => v.sheet === sheet.id);
          const behind = on.some((v) => states.get(v.view) === "behind");
          const current = sheet.id === open;
          return (
            <ButtonBase
              key={sheet.id}
              onClick={() => onOpen(sheet.id)}
              aria-current={current ? "page" : undefined}
              aria-label={`Sheet ${sheet.number} ${sheet.title}`}
              sx={{
                display: "block",
                width: "100%",
                textAlign: "left",
                p: 0.75,
                mb: 0.5,
                borderRadius: 1,
                bgcolor: current ? colours.sand : "transparent",
                boxShadow: current ? `inset 3px 0 0 ${colours.rust}` : "none",
                "&:hover": { bgcolor: current ? colours.sand : colours.sandPale },
              }}
            >
              <Box sx={{ border: `1px solid ${colours.sandDeep}`, ml: 0.5 }}>
                <SheetThumbnail sheet={sheet.id} viewports={on} width={164} />
              </Box>
              <Box sx={{ mt: 0.5, ml: 0.5, display: "flex", gap: 0.75, alignItems: "baseline" }}>
                <Box component="span" sx={{ fontWeight: 650, fontSize: 12.5, whiteSpace: "nowrap" }}>
                  {sheet.number}
                </Box>
                <Box
                  component="span"
                  title={sheet.title}
                  sx={{ fontSize: 12.5, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
                >
                  {sheet.title}
                </Box>
              </Box>
              {behind && (
                <Box sx={{ ml: 0.5 }}>
                  <StateMark state="behind" />
                </Box>
              )}
            </ButtonBase>
          );
        })}
      </Box>
      <Box sx={{ display: "flex", gap: 1, p: 1, borderTop: 1, borderColor: "divider" }}>
        <Tooltip title="Pull out the cards of the saved views (V)">
          <Button variant="contained" onClick={() => useDesk.setState({ rackOpen: true })} sx={{ flex: 1 }}>
            Views
          </Button>
        </Tooltip>
        <Tooltip title="Add a sheet at the end of the register">
          <Button variant="outlined" onClick={onAdd} sx={{ flex: 1 }}>
            Add sheet
          </Button>
        </Tooltip>
      </Box>
    </Box>
  );
}
