/** The ledge while a drawing is touched up: what clicks choose, and what becomes of what is chosen. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tooltip from "@mui/material/Tooltip";
import type { DisplayList, TouchUpChange, Viewport } from "../../../api/client";
import { ROLES } from "../../../canvas/penColours";
import { asSentence, classWords } from "../../../components/classWords";
import { roleWord } from "../../../components/lineRoles";
import { ChoiceField } from "../../../components/ChoiceField";
import { choicesOf } from "../../../components/choices";
import { Buttons, Group, Ledge, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { touchBy, touchUp, useTouching, type Chosen, type Mode } from "../../../stores/touching";
import { PATTERNS } from "../annotate/pieceChoices";
import { COLOURS, WIDTHS } from "../penChoices";
import type { SheetSet } from "../useSet";
import { choiceWords, likes } from "./choices";
import { ScaleRule } from "./ScaleRule";
import { TouchUpList } from "./TouchUpList";
import { HIDE, NO_STROKE, type TouchUps } from "./useTouchUp";
import { t } from "../../../words/words";

const MODES: readonly (readonly [Mode, string, string])[] = [
  ["lines", t("Lines"), t("Lines as far as they run, and what is cut")],
  ["part", t("Part"), t("A part of a line, between two clicks")],
  ["extend", t("Extend"), t("A line drawn out to another: click it near its end, then the other")],
];
const FILLS = choicesOf({
  none: t("Nothing"),
  "#1b1f24": t("Solid ink"),
  "#6b7378": t("Solid grey"),
  "#dcd9d0": t("Pale"),
});

interface Props {
  set: SheetSet;
  viewport: Viewport;
  display: DisplayList;
  commands: TouchUps;
}

export function TouchUpLedge({ set, viewport, display, commands }: Props) {
  const { mode, chosen, begun, inAll } = useTouching();
  const view = set.viewOf(viewport.view);
  return (
    <Ledge label={t("Ledge: touch up")}>
      <Group name={t("Touch up")}>
        <Rows>
          <Box role="status" sx={{ width: 196, height: 45, fontSize: 12.5, lineHeight: 1.35 }}>
            {hint(mode, chosen, Boolean(begun))}
          </Box>
          <Box sx={{ display: "flex", gap: 0.5 }}>
            {MODES.map(([key, name, tip]) => (
              <ToggleButton key={key} on={mode === key} name={name} tip={tip} onToggle={() => touchBy(key)} />
            ))}
          </Box>
        </Rows>
      </Group>
      {chosen.length > 0 && <ChosenFields chosen={chosen} commands={commands} />}
      <Group name={t("Holds in")}>
        <ChoiceField
          label={t("Touched up in")}
          width={164}
          value={inAll ? "view" : "viewport"}
          choices={[
            ["view", t("Wherever it stands")],
            ["viewport", t("This viewport alone")],
          ]}
          onChoose={(to) => useTouching.setState({ inAll: to === "view" })}
        />
      </Group>
      {view && view.spec.kind !== "perspective" && <ScaleRule view={view} viewport={viewport} />}
      <TouchUpList set={set} viewport={viewport} display={display} commands={commands} />
      <Box sx={{ ml: "auto", pt: "20px" }}>
        <Button variant="contained" onClick={() => touchUp(null)}>
          {t("Done")}
        </Button>
      </Box>
    </Ledge>
  );
}

function hint(mode: Mode, chosen: readonly Chosen[], begun: boolean): string {
  const [first] = chosen;
  if (mode === "part")
    return begun
      ? t("Click where the part ends: at a corner, a crossing, or anywhere along the line.")
      : t("Click where a part of a line begins.");
  if (mode === "extend")
    return begun
      ? t("Click the line that it is drawn out to.")
      : t("Click a line near the end to be drawn out.");
  if (!first) return t("Click a line, or what is cut. Shift chooses several. Escape ends.");
  return chosen.length > 1 ? t("{count} lines are chosen.", { count: chosen.length }) : sentence(first);
}

function sentence({ choice, picked }: Chosen): string {
  const of = choice.kind === "alike" ? "" : classWords(picked.ifcClass);
  const role = choice.kind === "stretch" || choice.kind === "round" ? `${roleWord(picked.role)} ` : "";
  return `${asSentence(`${role}${choiceWords(choice)}${of && t(" of a {of}", { of })}`)}.`;
}

function ChosenFields({ chosen, commands }: { chosen: readonly Chosen[]; commands: TouchUps }) {
  const [first] = chosen;
  if (!first) return null;
  const areas = chosen.every((c) => c.choice.kind === "area");
  const like = chosen.length === 1 ? likes(first.picked) : [];
  const stroke = (to: Partial<TouchUpChange["stroke"]>) =>
    void commands.apply({ hidden: false, stroke: { ...NO_STROKE, ...to } });
  return (
    <>
      <Group name={t("Chosen")}>
        <Rows>
          <Buttons>
            <Tooltip title={t("Leave it out of the drawing (Delete)")}>
              <Button variant="contained" onClick={() => void commands.apply(HIDE)}>
                {t("Hide")}
              </Button>
            </Tooltip>
          </Buttons>
          {like.length > 0 && (
            <ChoiceField
              label={t("Choose all alike")}
              width={150}
              value=""
              choices={[["", t("Alike…")], ...like.map(([name], k) => [String(k), name] as const)]}
              onChoose={(k) => {
                const wanted = like[Number(k)];
                if (k && wanted) void commands.widen(wanted[1]);
              }}
            />
          )}
        </Rows>
      </Group>
      {areas ? (
        <Group name={t("Filled with")}>
          <ChoiceField
            label={t("Fill")}
            width={120}
            value=""
            choices={[["", t("As it is")], ...FILLS]}
            onChoose={(fill) => fill && void commands.apply(filled(fill === "none" ? "" : fill))}
          />
        </Group>
      ) : (
        <Group name={t("Drawn with")}>
          <Rows>
            <ChoiceField
              label={t("Line role")}
              width={104}
              value=""
              choices={[["", t("As drawn")], ...ROLES.map((role) => [role, roleWord(role)] as const)]}
              onChoose={(role) =>
                role &&
                void commands.apply({
                  hidden: false,
                  stroke: NO_STROKE,
                  role: role as NonNullable<TouchUpChange["role"]>,
                })
              }
            />
            <ChoiceField
              label={t("Width")}
              width={104}
              value=""
              choices={[
                ["", t("As drawn")],
                ...WIDTHS.map((w) => [String(w), t("{w} mm", { w: w.toFixed(2) })] as const),
              ]}
              onChoose={(width) => width && stroke({ width: Number(width) })}
            />
          </Rows>
          <Rows>
            <ChoiceField
              label={t("Colour")}
              width={104}
              value=""
              choices={[["", t("As drawn")], ...COLOURS]}
              onChoose={(colour) => colour && stroke({ colour })}
            />
            <ChoiceField
              label={t("Pattern")}
              width={104}
              value=""
              choices={[["", t("As drawn")], ...PATTERNS]}
              onChoose={(pattern) =>
                pattern && stroke({ pattern: pattern as NonNullable<TouchUpChange["stroke"]["pattern"]> })
              }
            />
          </Rows>
        </Group>
      )}
    </>
  );
}

const filled = (fill: string): TouchUpChange => ({
  hidden: false,
  stroke: NO_STROKE,
  cut: {
    match: "",
    fill,
    opacity: 100,
    hatch: "",
    spacing: 1.5,
    angle: 0,
    width: 0.13,
    colour: "#1b1f24",
    screen: 100,
  },
});
