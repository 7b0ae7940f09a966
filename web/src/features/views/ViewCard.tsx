/** A view on the wall: its picture, what it is, how it stands, where it is placed. */
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import type { MouseEvent } from "react";
import type { View } from "../../api/client";
import { useLengths } from "../../components/lengths";
import { StateMark } from "../../components/StateMark";
import { ViewThumbnail } from "../../components/Thumbnail";
import { Unseen } from "../../components/Unseen";
import { colours, ONE_LINE } from "../../theme/theme";
import { summary } from "./kinds";
import { t } from "../../words/words";

export function ViewCard(props: {
  view: View;
  chosen: boolean;
  on: readonly string[];
  onOpen: () => void;
  onChoose: (on: boolean) => void;
  onDelete: () => void;
  onMenu: (event: MouseEvent) => void;
}) {
  const { view, chosen, on } = props;
  const lengths = useLengths();
  return (
    <Box
      sx={{
        position: "relative",
        border: `1px solid ${chosen ? colours.rust : colours.sandDeep}`,
        boxShadow: chosen ? `0 0 0 1px ${colours.rust}` : "none",
        borderRadius: 1,
        bgcolor: colours.paper,
        overflow: "hidden",
        "&:hover": { borderColor: chosen ? colours.rust : colours.sandShade },
        "& .choose": { opacity: chosen ? 1 : 0 },
        "&:hover .choose, &:focus-within .choose": { opacity: 1 },
      }}
    >
      <Box
        role="button"
        tabIndex={0}
        onClick={props.onOpen}
        onContextMenu={props.onMenu}
        onKeyDown={(event) => {
          if (event.key === "Enter") props.onOpen();
          if (event.key === " ") props.onChoose(!chosen);
          if (event.key === "Delete") props.onDelete();
          if (event.key === " ") event.preventDefault();
        }}
        sx={{
          cursor: "pointer",
          "&:focus-visible": { outline: `2px solid ${colours.rust}`, outlineOffset: -2 },
        }}
      >
        <ViewThumbnail view={view} width={194} height={108} />
        <Box sx={{ px: 1, py: 0.6, borderTop: `1px solid ${colours.sand}`, bgcolor: colours.sandPale }}>
          <Box
            title={view.name}
            sx={{
              fontSize: 12.5,
              fontWeight: 600,
              ...ONE_LINE,
            }}
          >
            <Unseen>{`${t("Open")} `}</Unseen>
            {view.name}{" "}
          </Box>
          <Box
            sx={{
              fontSize: 11.5,
              color: "text.secondary",
              ...ONE_LINE,
            }}
          >
            {summary(view.spec, lengths)}
          </Box>
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: 1 }}>
            <StateMark state={view.state} />
            <Box
              sx={{
                fontSize: 11.5,
                color: "text.secondary",
                ...ONE_LINE,
              }}
            >
              {on.length ? t("on {on}", { on: on.join(", ") }) : t("not placed")}
            </Box>
          </Box>
        </Box>
      </Box>
      <Checkbox
        className="choose"
        size="small"
        checked={chosen}
        onChange={(_, on) => props.onChoose(on)}
        slotProps={{ input: { "aria-label": t("Choose {name}", { name: view.name }) } }}
        sx={{ position: "absolute", top: 2, left: 2, p: 0.25, bgcolor: "#ffffffc8", borderRadius: 0.5 }}
      />
    </Box>
  );
}
