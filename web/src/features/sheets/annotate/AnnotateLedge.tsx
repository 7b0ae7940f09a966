/** The ledge while something is annotated: what the next click does, and how what it makes is to be. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { ChoiceField } from "../../../components/ChoiceField";
import { choicesOf } from "../../../components/choices";
import { Group, Ledge } from "../../../components/Ledge";
import { annotate, useAnnotating } from "../../../stores/annotating";
import { ON_SHEET } from "./pieces";
import { OPTIONS, type ListDialog } from "./ToolOptions";
import { TOOL_NAMES, hint, pointsOf } from "./tools";
import type { Annotate } from "./useAnnotate";
import { t } from "../../../words/words";

const HOMES = choicesOf<"sheet" | "view">({
  sheet: t("On this sheet only"),
  view: t("In the view, on every sheet"),
});

interface Props {
  project: string;
  commands: Annotate;
  /** Open one of the project's lists that a tool takes from. */
  onAsk: (list: ListDialog) => void;
}

export function AnnotateLedge({ project, commands, onAsk }: Props) {
  const now = useAnnotating();
  const { tool, points, extending, attaching, pointsFor } = now;
  if (!tool) return null;
  const making = !attaching && !pointsFor;
  const goesOn = tool === "shape" && points.length >= pointsOf("shape", now.shape.form)[0];
  return (
    <Ledge label={t("Ledge: annotate")}>
      <Group name={pointsFor ? t("Points") : attaching ? t("Attach again") : TOOL_NAMES[tool]}>
        <Box role="status" sx={{ width: 262, pt: "4px", fontSize: 13, lineHeight: 1.4 }}>
          {hint({
            tool,
            points: points.length,
            measure: now.measure,
            form: now.shape.form,
            measures: now.measures,
            extending: Boolean(extending),
            attaching: Boolean(attaching),
            pointsFor: pointsFor?.what ?? null,
          })}
          <Box sx={{ color: "text.secondary", fontSize: 12, mt: 0.5 }}>
            {t("Alt clicks without snapping. Escape begins again; twice, it puts the tool away.")}
          </Box>
        </Box>
      </Group>
      {making && !ON_SHEET.includes(tool) && (
        <Group name={t("Where it belongs")}>
          <ChoiceField
            label={t("Belongs to")}
            width={164}
            value={now.home}
            choices={HOMES}
            onChoose={(to) => useAnnotating.setState({ home: to as "sheet" | "view" })}
          />
        </Group>
      )}
      {making && OPTIONS[tool]?.({ project, onAsk })}
      <Box sx={{ ml: "auto", pt: "20px", display: "flex", gap: 0.5 }}>
        {(points.length > 0 || extending) && (
          <Button variant="outlined" onClick={extending || goesOn ? commands.done : commands.back}>
            {extending
              ? t("Next dimension (Enter)")
              : goesOn
                ? t("End it (Enter)")
                : t("Remove the last point")}
          </Button>
        )}
        <Button variant="contained" onClick={() => annotate(null)}>
          {t("Done")}
        </Button>
      </Box>
    </Ledge>
  );
}
