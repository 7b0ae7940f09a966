/** What can be drawn over a sheet. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import type { MarkKind } from "../../api/client";
import { colours } from "../../theme/theme";
import { t } from "../../words/words";

const TOOLS: readonly [MarkKind | null, string, string][] = [
  [
    null,
    t("Move"),
    "M5 12h14M12 5v14M5 12l3-3M5 12l3 3M19 12l-3-3M19 12l-3 3M12 5l-3 3M12 5l3 3M12 19l-3-3M12 19l3-3",
  ],
  ["point", t("Point"), "M12 20s6-6 6-10a6 6 0 1 0-12 0c0 4 6 10 6 10zM12 8.2a2 2 0 1 1 0 4a2 2 0 1 1 0-4z"],
  ["arrow", t("Arrow"), "M5 19L18 6M18 6h-7M18 6v7"],
  [
    "cloud",
    t("Cloud"),
    "M7 17a3 3 0 0 1-1-6a4 4 0 0 1 6-4a4 4 0 0 1 6 4a3 3 0 0 1-1 6a3.5 3.5 0 0 1-5 1a3.5 3.5 0 0 1-5-1z",
  ],
  ["line", t("Draw"), "M4 16c3-8 5-8 6-4s3 5 5 0s3-4 5-2"],
  ["text", t("Text"), "M6 7V5h12v2M12 5v14M9.5 19h5"],
  ["length", t("Measure"), "M4 14L14 4l6 6L10 20zM8 10l2 2M11 7l2 2M14 10l-1 1"],
];

interface Props {
  tool: MarkKind | null;
  onTool: (tool: MarkKind | null) => void;
}

export function MarkTools({ tool, onTool }: Props) {
  return (
    <Box
      role="toolbar"
      aria-label={t("Draw on the sheet")}
      onPointerDown={(event) => event.stopPropagation()}
      sx={{
        position: "absolute",
        left: "50%",
        bottom: 12,
        transform: "translateX(-50%)",
        display: "flex",
        bgcolor: colours.sandPale,
        border: `1px solid ${colours.sandShade}`,
        borderRadius: 1,
        boxShadow: "0 2px 8px rgba(74, 60, 34, 0.25)",
        cursor: "default",
        maxWidth: "calc(100% - 16px)",
        zIndex: 3,
      }}
    >
      {TOOLS.map(([kind, name, path]) => (
        <ButtonBase
          key={name}
          aria-pressed={tool === kind}
          onClick={() => onTool(kind)}
          sx={{
            width: 52,
            height: 50,
            flexShrink: 1,
            display: "flex",
            flexDirection: "column",
            gap: 0.25,
            fontSize: 11,
            fontWeight: 600,
            bgcolor: tool === kind ? colours.rustPale : "transparent",
            boxShadow: tool === kind ? `inset 0 -3px 0 ${colours.rust}` : "none",
          }}
        >
          <svg
            width={22}
            height={22}
            viewBox="0 0 24 24"
            fill="none"
            stroke="currentColor"
            strokeWidth={1.6}
            aria-hidden
          >
            <path d={path} strokeLinecap="round" strokeLinejoin="round" />
          </svg>
          {name}
        </ButtonBase>
      ))}
    </Box>
  );
}
