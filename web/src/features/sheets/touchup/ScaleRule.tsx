/** What is left out of a view in viewports at small scales: whether, and by which figures. */
import Box from "@mui/material/Box";
import type { View, Viewport } from "../../../api/client";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { PopUp } from "../../../components/PopUp";
import { ToggleButton } from "../../../components/ToggleButton";
import { useViewEdits } from "../../../sync/views";
import { shownFigure } from "../figures";
import { t } from "../../../words/words";

type Rule = NonNullable<View["simplification"]>;
/** The figures of a rule that is begun; the same as the core has. */
const DEFAULT_RULE: Rule = { from_scale: 200, apart: 0.25, small: 0.7, fills: true };

export function ScaleRule({ view, viewport }: { view: View; viewport: Viewport }) {
  const edits = useViewEdits(view.project);
  const rule = view.simplification;
  const change = (to: Partial<Rule>) =>
    void edits.change(
      view,
      { simplification: { ...(rule ?? DEFAULT_RULE), ...to } },
      t("simplify at small scales"),
    );
  const holds = rule !== null && viewport.ratio * rule.from_scale <= 1 + 1e-9;
  return (
    <Group name={holds ? t("Small scales, simplified here") : t("Small scales")} about={t("Small scales")}>
      <Rows>
        <Buttons>
          <ToggleButton
            on={rule !== null}
            name={t("Simplify")}
            tip={t("Leave out of this view what would run together in viewports at small scales")}
            onToggle={() =>
              rule ? void edits.change(view, { simplification: null }, t("do not simplify")) : change({})
            }
          />
        </Buttons>
        {rule && (
          <PopUp
            button={t("1:{fromScale} and smaller", { fromScale: shownFigure(rule.from_scale) })}
            name={t("What is simplified")}
          >
            <Box sx={{ p: 2, width: 300, display: "flex", flexDirection: "column", gap: 1 }}>
              <FigureField
                label={t("Holds at one to this, and smaller")}
                number
                width={260}
                value={shownFigure(rule.from_scale)}
                onCommit={(value) => change({ from_scale: Number(value) })}
              />
              <FigureField
                label={t("Lines nearer than this become one (mm on paper)")}
                number
                width={260}
                value={shownFigure(rule.apart)}
                onCommit={(value) => change({ apart: Number(value) })}
              />
              <FigureField
                label={t("Parts smaller than this are left out (mm on paper)")}
                number
                width={260}
                value={shownFigure(rule.small)}
                onCommit={(value) => change({ small: Number(value) })}
              />
              <Box>
                <ToggleButton
                  on={rule.fills}
                  name={t("Hatches turn to fills")}
                  tip={t("What is cut is filled with the tone of its hatch")}
                  onToggle={() => change({ fills: !rule.fills })}
                />
              </Box>
              <Box sx={{ fontSize: 12, color: "text.secondary" }}>
                {holds
                  ? t("It holds in this viewport: the board shows what is left.")
                  : t("This viewport is at {scale}: nothing is left out of it.", { scale: viewport.scale })}
              </Box>
            </Box>
          </PopUp>
        )}
      </Rows>
    </Group>
  );
}
