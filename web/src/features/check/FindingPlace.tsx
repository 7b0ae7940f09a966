/** The sheet that a finding is on, with a ring at its place. */
import Box from "@mui/material/Box";
import useMediaQuery from "@mui/material/useMediaQuery";
import { useMemo } from "react";
import type { Finding, Sheet, Viewport } from "../../api/client";
import { useDisplay } from "../../api/sheets";
import { SheetThumbnail } from "../../components/Thumbnail";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

const RING = 16;
/** How wide the sheet is shown in a window of some width; pixels. */
const WIDTHS = [
  [2200, 960],
  [1500, 620],
  [0, 400],
] as const;

interface Props {
  finding: Finding | undefined;
  sheets: readonly Sheet[];
  viewports: readonly Viewport[];
}

export function FindingPlace({ finding, sheets, viewports }: Props) {
  const sheet = sheets.find((s) => s.id === finding?.sheet);
  const { data: display } = useDisplay(sheet?.id ?? "");
  const on = useMemo(() => viewports.filter((v) => v.sheet === sheet?.id), [viewports, sheet?.id]);
  const at = finding?.at;
  const large = useMediaQuery(`(min-width: ${WIDTHS[0][0]}px)`);
  const medium = useMediaQuery(`(min-width: ${WIDTHS[1][0]}px)`);
  const [, width] = WIDTHS[large ? 0 : medium ? 1 : 2];
  const scale = display ? width / display.width : 0;
  return (
    <Box
      component="aside"
      aria-label={t("Where it is")}
      sx={{ width: width + 48, flexShrink: 0, p: 3, bgcolor: colours.sand, overflowY: "auto" }}
    >
      {sheet && display ? (
        <>
          <Box sx={{ position: "relative", width, boxShadow: "0 1px 5px #0004" }}>
            <SheetThumbnail
              sheet={sheet.id}
              viewports={on}
              width={width}
              place={`check ${sheet.id} ${width}`}
            />
            {at && (
              <Box
                data-at={at.join(" ")}
                sx={{
                  position: "absolute",
                  left: (at[0] ?? 0) * scale - RING,
                  top: (display.height - (at[1] ?? 0)) * scale - RING,
                  width: 2 * RING,
                  height: 2 * RING,
                  borderRadius: "50%",
                  border: `2.5px solid ${colours.rust}`,
                  boxShadow: `0 0 0 2px ${colours.paper}`,
                }}
              />
            )}
          </Box>
          <Box sx={{ mt: 1, fontSize: 12.5 }}>
            <b>{sheet.number}</b> {sheet.title}
          </Box>
        </>
      ) : (
        <Box sx={{ color: "text.secondary", fontSize: 13 }}>
          {finding ? t("This is about the set as a whole.") : ""}
        </Box>
      )}
    </Box>
  );
}
