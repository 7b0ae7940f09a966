/** What has been touched up in a view: listed, shown, taken back singly or all. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { DisplayList, TouchUp, Viewport } from "../../../api/client";
import { redrawnIn } from "../../../canvas/redrawn";
import { asSentence } from "../../../components/classWords";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { PopUp } from "../../../components/PopUp";
import { ToggleButton } from "../../../components/ToggleButton";
import { useTouching } from "../../../stores/touching";
import { colours } from "../../../theme/theme";
import type { SheetSet } from "../useSet";
import { changeWords, choiceWords } from "./choices";
import type { TouchUps } from "./useTouchUp";
import { t } from "../../../words/words";

interface Props {
  set: SheetSet;
  viewport: Viewport;
  display: DisplayList;
  commands: TouchUps;
}

/** The touch-ups that hold in a viewport, the newest first. */
export const touchUpsIn = (touchUps: readonly TouchUp[], viewport: Viewport) =>
  touchUps
    .filter(
      (each) => each.view === viewport.view && (each.viewport === null || each.viewport === viewport.id),
    )
    .toSorted((a, b) => b.position - a.position);

export function TouchUpList({ set, viewport, display, commands }: Props) {
  const shown = useTouching((s) => s.shown);
  const own = touchUpsIn(set.touchUps, viewport);
  const lost = new Set(
    display.touch_ups
      .filter((each) => each.viewport === viewport.id && !each.found)
      .map((each) => each.touch_up),
  );
  const gone = own.filter((each) => lost.has(each.id));
  if (!redrawnIn(display, viewport.id).length && !own.length) return null;
  const count = own.length === 1 ? t("1 touch-up") : t("{count} touch-ups", { count: own.length });
  return (
    <Group name={t("Touched up")}>
      <Rows>
        {own.length > 0 && (
          <Buttons>
            <PopUp
              button={gone.length ? t("{count}, {count2} lost", { count, count2: gone.length }) : count}
              name={t("Touch-ups of this view")}
            >
              <Box sx={{ width: 420 }}>
                <Box component="ul" sx={{ m: 0, p: 1, maxHeight: 300, overflowY: "auto", listStyle: "none" }}>
                  {own.map((each) => (
                    <Box
                      component="li"
                      key={each.id}
                      sx={{ display: "flex", alignItems: "center", gap: 1, px: 1, fontSize: 12.5 }}
                    >
                      <Box sx={{ flex: 1, minWidth: 0, lineHeight: 1.35 }}>
                        {asSentence(choiceWords(each.spec.choice))}: <b>{changeWords(each.spec.change)}</b>
                        {each.viewport !== null && (
                          <Box component="span" sx={{ color: "text.secondary" }}>
                            {t("in this viewport alone")}
                          </Box>
                        )}
                        {lost.has(each.id) && (
                          <Box sx={{ color: colours.rust }}>
                            {t("It no longer finds its line in this drawing.")}
                          </Box>
                        )}
                      </Box>
                      <Button
                        aria-label={t("Delete: {choice}", { choice: choiceWords(each.spec.choice) })}
                        onClick={() => void commands.remove([each])}
                      >
                        {t("Delete")}
                      </Button>
                    </Box>
                  ))}
                </Box>
                <Box sx={{ display: "flex", gap: 1, px: 2, pb: 1.5 }}>
                  {gone.length > 0 && (
                    <Button variant="outlined" onClick={() => void commands.remove(gone)}>
                      {t("Delete {count} lost", { count: gone.length })}
                    </Button>
                  )}
                  <Button variant="outlined" onClick={() => void commands.remove(own)}>
                    {t("Delete all")}
                  </Button>
                </Box>
              </Box>
            </PopUp>
          </Buttons>
        )}
        <ToggleButton
          on={shown}
          name={t("Show")}
          tip={t("Mark on the board what has been touched up: dashed where it is hidden")}
          onToggle={() => useTouching.setState({ shown: !shown })}
        />
      </Rows>
    </Group>
  );
}
