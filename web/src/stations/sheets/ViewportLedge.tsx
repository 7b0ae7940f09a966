/** The ledge for a viewport: which view, its scale, its frame, its state, and what can be done with it. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { Job, Rung, View, Viewport } from "../../api/client";
import { isUnderWay } from "../../api/queries";
import { useDesk } from "../../board/desk";
import { geometryOf, type Geometry } from "../../board/geometry";
import { ChoiceField } from "../../parts/ChoiceField";
import { FigureField } from "../../parts/FigureField";
import { StateMark } from "../../parts/StateMark";
import { Group, Ledge } from "../../parts/Ledge";
import type { Edits } from "./edits";

interface Props {
  viewport: Viewport;
  view: View | undefined;
  ladder: Rung[];
  job: Job | undefined;
  edits: Edits;
  onBringUpToDate: () => void;
}

const FIGURES = [
  ["x", "Left"],
  ["y", "Bottom"],
  ["width", "Width"],
  ["height", "Height"],
] as const;

const shown = (value: number) => String(Math.round(value * 100) / 100);

export function ViewportLedge({ viewport, view, ladder, job, edits, onBringUpToDate }: Props) {
  const reachedIn = useDesk((s) => s.reachedIn);
  const draft = useDesk((s) => (s.draft?.id === viewport.id ? s.draft.geometry : null));
  const now: Geometry = draft ?? geometryOf(viewport);
  const scale = viewport.scale;
  const rungs = ladder.some((r) => r.scale === scale) ? ladder : [{ scale, ratio: viewport.ratio }, ...ladder];
  const drawing = job && isUnderWay(job);

  return (
    <Ledge label="Ledge: viewport">
      <Group name="View">
        <Box sx={{ width: 168 }}>
          <Box title={view?.name} sx={{ fontSize: 14, fontWeight: 600, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
            {view?.name}
          </Box>
          <Box sx={{ display: "flex", alignItems: "center", minHeight: 26, gap: 1 }}>
            {drawing ? (
              <Box role="status" sx={{ fontSize: 11.5, color: "text.secondary" }}>
                being drawn: {job.stage || "waiting"}
              </Box>
            ) : (
              view && <StateMark state={view.state} />
            )}
            {view && view.state !== "fresh" && !drawing && (
              <Button onClick={onBringUpToDate} sx={{ minHeight: 24, px: 1 }}>
                Bring up to date
              </Button>
            )}
          </Box>
        </Box>
      </Group>
      <Group name="Scale">
        <ChoiceField
          label="True scale"
          value={scale}
          width={104}
          choices={rungs.map((r) => [r.scale, r.scale] as const)}
          onChoose={(value) => {
            const rung = ladder.find((r) => r.scale === value);
            if (rung && value !== scale) void edits.changeViewport(viewport, rung, `scale ${value}`);
          }}
        />
      </Group>
      <Group name="Frame on paper">
        {FIGURES.map(([key, label]) => (
          <FigureField
            key={key}
            label={label}
            unit="mm"
            number
            width={82}
            value={shown(now[key])}
            onCommit={(value) =>
              void edits.changeViewport(viewport, { [key]: Number(value) }, `${label.toLowerCase()} of a viewport`)
            }
          />
        ))}
      </Group>
      <Group name="Contents">
        <Tooltip title={reachedIn ? "Return to the sheet (Escape)" : "Move what is seen within the frame (Enter, or a double click)"}>
          <Button
            variant={reachedIn ? "contained" : "outlined"}
            aria-pressed={reachedIn}
            onClick={() => useDesk.getState().select(viewport.id, !reachedIn)}
          >
            {reachedIn ? "Step out" : "Reach in"}
          </Button>
        </Tooltip>
      </Group>
      <Box sx={{ ml: "auto", pt: 2.5 }}>
        <Tooltip title="Delete this viewport; the view stays (Delete)">
          <Button onClick={() => void edits.deleteViewport(viewport)}>Delete</Button>
        </Tooltip>
      </Box>
    </Ledge>
  );
}
