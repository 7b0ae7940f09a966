/** What has been touched up in a view: listed, shown, taken back singly or all. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { DisplayList, TouchUp, Viewport } from "../../../api/client";
import { redrawnIn } from "../../../canvas/redrawn";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { PopUp } from "../../../components/PopUp";
import { ToggleButton } from "../../../components/ToggleButton";
import { useTouching } from "../../../stores/touching";
import { colours } from "../../../theme/theme";
import type { SheetSet } from "../useSet";
import { asSentence, changeWords, choiceWords } from "./choices";
import type { TouchUps } from "./useTouchUp";

interface Props {
  set: SheetSet;
  viewport: Viewport;
  display: DisplayList;
  commands: TouchUps;
}

/** The touch-ups that hold in a viewport, the newest first. */
export const touchUpsIn = (touchUps: readonly TouchUp[], viewport: Viewport) =>
  touchUps
    .filter((each) => each.view === viewport.view && (each.viewport === null || each.viewport === viewport.id))
    .toSorted((a, b) => b.position - a.position);

export function TouchUpList({ set, viewport, display, commands }: Props) {
  const shown = useTouching((s) => s.shown);
  const own = touchUpsIn(set.touchUps, viewport);
  const lost = new Set(
    display.touch_ups.filter((each) => each.viewport === viewport.id && !each.found).map((each) => each.touch_up),
  );
  const gone = own.filter((each) => lost.has(each.id));
  if (!redrawnIn(display, viewport.id).length && !own.length) return null;
  const count = own.length === 1 ? "1 touch-up" : `${own.length} touch-ups`;
  return (
    <Group name="Touched up">
      <Rows>
        {own.length > 0 && (
          <Buttons>
            <PopUp
              button={gone.length ? `${count}, ${gone.length} lost` : count}
              name="Touch-ups of this view"
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
                            {" "}
                            in this viewport alone
                          </Box>
                        )}
                        {lost.has(each.id) && (
                          <Box sx={{ color: colours.rust }}>It no longer finds its line in this drawing.</Box>
                        )}
                      </Box>
                      <Button
                        aria-label={`Delete: ${choiceWords(each.spec.choice)}`}
                        onClick={() => void commands.remove([each])}
                      >
                        Delete
                      </Button>
                    </Box>
                  ))}
                </Box>
                <Box sx={{ display: "flex", gap: 1, px: 2, pb: 1.5 }}>
                  {gone.length > 0 && (
                    <Button variant="outlined" onClick={() => void commands.remove(gone)}>
                      Delete {gone.length} lost
                    </Button>
                  )}
                  <Button variant="outlined" onClick={() => void commands.remove(own)}>
                    Delete all
                  </Button>
                </Box>
              </Box>
            </PopUp>
          </Buttons>
        )}
        <ToggleButton
          on={shown}
          name="Show"
          tip="Mark on the board what has been touched up: dashed where it is hidden"
          onToggle={() => useTouching.setState({ shown: !shown })}
        />
      </Rows>
    </Group>
  );
}
