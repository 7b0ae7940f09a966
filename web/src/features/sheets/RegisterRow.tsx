/** A sheet in the register, as a picture or as a line. */
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import { memo, type MouseEvent } from "react";
import type { Sheet, Viewport } from "../../api/client";
import { Discs } from "../../components/People";
import { SeverityMark } from "../../components/severities";
import { StateMark } from "../../components/StateMark";
import { SheetThumbnail } from "../../components/Thumbnail";
import { Unseen } from "../../components/Unseen";
import { colours, ONE_LINE } from "../../theme/theme";
import type { FindingCounts } from "./useFindings";
import { t } from "../../words/words";

const HINT = t("Drag it, or press Alt and an arrow, to move it\nShift or Ctrl and a click choose several");

interface Props {
  sheet: Sheet;
  /** The viewports on it. */
  on: Viewport[];
  pictured: boolean;
  current: boolean;
  held: boolean;
  /** Whether it is one of several that are chosen. */
  chosen: boolean;
  /** The others who have it open. */
  people: readonly string[];
  /** Whether what is being dragged would come to lie before it, or behind it at the end. */
  mark: "before" | "behind" | null;
  warning: string | undefined;
  findings: ReturnType<FindingCounts["get"]>;
  onPress: (sheet: Sheet, event: MouseEvent) => void;
  /** It is dragged; none is any more. */
  onHold: (sheet: Sheet | null) => void;
  /** Alt and an arrow: up or down the register. */
  onShift: (sheet: Sheet, by: number) => void;
  onMenu: (sheet: Sheet, event: MouseEvent) => void;
}

/** Of a long register only what changes is rendered again. */
export const RegisterRow = memo(function RegisterRow(props: Props) {
  const { sheet, on, pictured, current, mark, warning, findings } = props;
  const edge = (there: boolean) => `2px solid ${there ? colours.rust : "transparent"}`;
  const marks = (
    <>
      {on.some((v) => v.state === "out_of_date") && <StateMark state="out_of_date" />}
      {(["error", "warning"] as const).map((severity) => {
        const count = findings?.[severity];
        return count && <SeverityMark key={severity} severity={severity} count={count} />;
      })}
      {warning && (
        <Box component="span" sx={{ color: colours.rust, fontSize: 11.5, fontWeight: 600, ...ONE_LINE }}>
          {warning}
        </Box>
      )}
    </>
  );
  return (
    <ButtonBase
      data-sheet={sheet.id}
      draggable
      onDragStart={(event) => {
        event.dataTransfer.effectAllowed = "move";
        props.onHold(sheet);
      }}
      onDragEnd={() => props.onHold(null)}
      onClick={(event) => props.onPress(sheet, event)}
      onContextMenu={(event) => props.onMenu(sheet, event)}
      onKeyDown={(event) => {
        const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
        if (!by || !event.altKey) return;
        event.preventDefault();
        props.onShift(sheet, by);
      }}
      title={`${sheet.number} ${sheet.title}\n${HINT}`}
      aria-pressed={props.chosen || undefined}
      aria-current={current ? "page" : undefined}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        p: pictured ? 0.75 : 0.25,
        pl: 0.75,
        mb: pictured ? 0.5 : 0,
        borderRadius: 1,
        bgcolor: props.chosen ? colours.rustPale : current ? colours.sand : "transparent",
        boxShadow: current ? `inset 3px 0 0 ${colours.rust}` : "none",
        opacity: props.held ? 0.5 : 1,
        borderTop: edge(mark === "before"),
        borderBottom: edge(mark === "behind"),
        "&:hover": { bgcolor: props.chosen ? colours.rustPale : current ? colours.sand : colours.sandPale },
      }}
    >
      {pictured && (
        <Box sx={{ border: `1px solid ${colours.sandDeep}`, ml: 0.5, mb: 0.5 }}>
          <SheetThumbnail sheet={sheet.version ? sheet.id : ""} viewports={on} width={164} />
        </Box>
      )}
      <Box sx={{ ml: 0.5, display: "flex", gap: 0.75, alignItems: "baseline", minWidth: 0 }}>
        <Box component="span" sx={{ fontWeight: 650, fontSize: 12.5, whiteSpace: "nowrap" }}>
          <Unseen>{`${t("Sheet")} `}</Unseen>
          {sheet.number ?? "…"}{" "}
        </Box>
        <Box component="span" sx={{ fontSize: 12.5, flex: 1, minWidth: 0, ...ONE_LINE }}>
          {sheet.title}
        </Box>
        <Discs names={props.people} />
        {!pictured && <Box sx={{ display: "flex", gap: 0.5, flexShrink: 0 }}>{marks}</Box>}
      </Box>
      {pictured && <Box sx={{ ml: 0.5, display: "flex", gap: 1, minWidth: 0 }}>{marks}</Box>}
    </ButtonBase>
  );
});
