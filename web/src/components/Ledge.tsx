/** The ledge along the bottom of the board: everything about what is selected. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Tooltip from "@mui/material/Tooltip";
import type { ReactNode } from "react";
import { colours } from "../theme/theme";
import { spoken } from "../words/words";
import { GROUP_HELP } from "./groupHelp";
import { LEDGE_HEIGHT } from "./stationLayout";

const ENGLISH = spoken() === "en";
/** From this width of the window on, px, there is room to spare. */
const WIDE = ENGLISH ? 1500 : 1750;
/** In the smallest windows all is smaller where words are longer than English ones. */
const SMALL = ENGLISH ? {} : { zoom: 0.9, height: LEDGE_HEIGHT / 0.9, "--choices-wider": 0.92 };

export function Ledge({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      component="section"
      aria-label={label}
      onWheel={(event) => {
        event.currentTarget.scrollLeft += event.deltaX || event.deltaY;
      }}
      sx={{
        flexShrink: 0,
        height: LEDGE_HEIGHT,
        px: 1.75,
        pt: 1,
        pb: 1.25,
        bgcolor: colours.sandLight,
        borderTop: `1px solid ${colours.sandShade}`,
        boxShadow: "inset 0 3px 0 #fff8",
        display: "flex",
        alignItems: "flex-start",
        gap: 1,
        overflowX: "auto",
        overflowY: "hidden",
        scrollbarWidth: "thin",
        // Where there is no room for all, the rest is scrolled to; what is done most stays in sight.
        "& > *": { flexShrink: 0 },
        "& > :last-child": { position: "sticky", right: 0, zIndex: 1 },
        "& > :last-child::before": {
          content: '""',
          position: "absolute",
          inset: "-8px -14px -120px -4px",
          zIndex: -1,
          bgcolor: colours.sandLight,
          boxShadow: `-4px 0 4px -2px ${colours.sandLight}`,
          clipPath: "inset(0 0 0 -8px)",
        },
        "@media (min-width: 1250px)": { "--choices-wider": 1.06 },
        [`@media (min-width: ${WIDE}px)`]: { "--choices-wider": 1.3 },
        "@media (max-width: 1099px)": SMALL,
        "@media (max-width: 1319px)": {
          px: 0.75,
          gap: 0.6,
          "& .MuiButton-root": { paddingInline: "6px" },
          "& > :last-child::before": { right: -6 },
        },
      }}
    >
      {children}
    </Box>
  );
}

interface GroupProps {
  name: string;
  /** What the group is about, where others of its name are about something else. */
  about?: string;
  grow?: boolean;
  children: ReactNode;
}

const HELP = {
  ml: 0.5,
  width: 14,
  height: 14,
  borderRadius: "50%",
  fontSize: 10,
  fontWeight: 650,
  verticalAlign: "1px",
  color: "text.secondary",
  border: `1px solid ${colours.sandDeep}`,
  "&:hover, &:focus-visible": { color: "text.primary", borderColor: colours.sandShade },
} as const;

/** A few things that belong together, under one heading, with a sentence about them. */
export function Group({ name, about = name, grow, children }: GroupProps) {
  const help = GROUP_HELP[about];
  return (
    <Box role="group" aria-label={name} sx={{ flex: grow ? 1 : "0 0 auto", minWidth: "min-content" }}>
      <Box sx={{ fontSize: 11.5, fontWeight: 650, mb: 0.5, height: 16, whiteSpace: "nowrap" }}>
        {name}
        {help && (
          <Tooltip title={help} placement="top" describeChild>
            <ButtonBase sx={HELP}>?</ButtonBase>
          </Tooltip>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 0.75, alignItems: "flex-end", flexWrap: "nowrap" }}>{children}</Box>
    </Box>
  );
}

/** Buttons in a row of a group, level with fields that have their labels above them. */
export function Buttons({ children }: { children: ReactNode }) {
  return <Box sx={{ display: "flex", gap: 0.5, pt: "15px" }}>{children}</Box>;
}

/** Two rows, one above the other, within a group. */
export function Rows({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: "flex", flexDirection: "column", gap: 0.5, alignItems: "flex-start" }}>
      {children}
    </Box>
  );
}
