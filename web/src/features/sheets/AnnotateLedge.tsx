/** The ledge while something is annotated: what the next click does, and how what it makes is to be. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { ChoiceField } from "../../components/ChoiceField";
import { choicesOf } from "../../components/choices";
import { Group, Ledge } from "../../components/Ledge";
import { annotate, useAnnotating, type Tool } from "../../stores/annotating";
import type { Annotate } from "./useAnnotate";
import { LEADERS, MEASURES, STYLES } from "./pieceChoices";

const WANTED = choicesOf<ReturnType<typeof useAnnotating.getState>["measures"]>({
  pointer: "By the pointer",
  ...Object.fromEntries(MEASURES),
} as Record<"pointer" | "aligned" | "horizontal" | "vertical", string>);
const HOMES = choicesOf<"sheet" | "view">({
  sheet: "On this sheet only",
  view: "In the view, on every sheet",
});

export function AnnotateLedge({ commands }: { commands: Annotate }) {
  const { tool, points, extending, attaching, measures, style, leader, home } = useAnnotating();
  if (!tool) return null;
  return (
    <Ledge label="Ledge: annotate">
      <Group name={attaching ? "Attach again" : TOOL_NAMES[tool]}>
        <Box role="status" sx={{ width: 290, pt: "4px", fontSize: 13, lineHeight: 1.4 }}>
          {hint(tool, points.length, Boolean(extending), Boolean(attaching))}
          <Box sx={{ color: "text.secondary", fontSize: 12, mt: 0.5 }}>
            Alt clicks without snapping. Escape begins again; twice, it puts the tool away.
          </Box>
        </Box>
      </Group>
      {!attaching && tool !== "schedule" && tool !== "cloud" && (
        <Group name="Where it belongs">
          <ChoiceField
            label="Belongs to"
            width={188}
            value={home}
            choices={HOMES}
            onChoose={(to) => useAnnotating.setState({ home: to as "sheet" | "view" })}
          />
        </Group>
      )}
      {tool === "dimension" && !attaching && (
        <Group name="How">
          <ChoiceField
            label="Measures"
            width={126}
            value={measures}
            choices={WANTED}
            onChoose={(to) => useAnnotating.setState({ measures: to as typeof measures })}
          />
          <ChoiceField
            label="Figures in"
            width={126}
            value={style}
            choices={STYLES}
            onChoose={(to) => useAnnotating.setState({ style: to as typeof style })}
          />
        </Group>
      )}
      {tool === "note" && !attaching && (
        <Group name="How">
          <ChoiceField
            label="Leader"
            width={126}
            value={leader}
            choices={LEADERS}
            onChoose={(to) => useAnnotating.setState({ leader: to as typeof leader })}
          />
        </Group>
      )}
      <Box sx={{ ml: "auto", pt: "20px", display: "flex", gap: 0.5 }}>
        {(points.length > 0 || extending) && (
          <Button variant="outlined" onClick={extending ? commands.done : commands.back}>
            {extending ? "Next dimension (Enter)" : "Remove the last point"}
          </Button>
        )}
        <Button variant="contained" onClick={() => annotate(null)}>
          Done
        </Button>
      </Box>
    </Ledge>
  );
}

const TOOL_NAMES: Record<Tool, string> = {
  dimension: "Dimension",
  note: "Note",
  level: "Spot level",
  schedule: "Schedule",
  cloud: "Cloud",
  tag: "Tag",
};

function hint(tool: Tool, points: number, extending: boolean, attaching: boolean): string {
  if (attaching) return `Click what it is to be attached to: point ${points + 1}.`;
  if (tool === "schedule") return "Click where its upper left corner is to lie.";
  if (tool === "cloud")
    return points ? "Click the opposite corner." : "Click one corner of what has changed.";
  if (tool === "tag") return "Click a door or a window. All of a drawing are tagged from its ledge, More.";
  if (tool === "level") return "Click a point of an elevation or a section.";
  if (tool === "note") return points ? "Click where the words begin." : "Click what the note speaks of.";
  if (extending) return "Click further points to add lengths to this chain.";
  if (points < 2) return points ? "Click the second point." : "Click the first point to measure from.";
  return "Click where the dimension line lies; with Shift, a further point.";
}
