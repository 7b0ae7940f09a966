/** What a dimension, a measure or a level measures, and how its figure is lettered. */
import Box from "@mui/material/Box";
import type { AnnotationSpec, DimensionSpec, MeasureSpec, SpotLevelSpec } from "../../../api/client";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { ARRANGEMENTS, MEASURES, SLOPES, STYLES } from "./pieceChoices";
import { useNamed, type Of } from "./pieceProps";
import { t } from "../../../words/words";

/** The unit of figures, or a named style. */
function Figures<S extends DimensionSpec | MeasureSpec>({ piece, edits }: Of<S>) {
  const spec: DimensionSpec | MeasureSpec = piece.spec;
  const named = useNamed(piece.project, "dimension");
  return (
    <ChoiceField
      label={t("Figures in")}
      width={136}
      value={named.some(([id]) => id === spec.named) ? spec.named : spec.style}
      choices={[...STYLES, ...named]}
      onChoose={(to) => {
        const style = named.some(([id]) => id === to)
          ? { named: to }
          : { named: "", style: to as DimensionSpec["style"] };
        void edits.change(
          [piece],
          () => ({ spec: { ...spec, ...style } as AnnotationSpec }),
          t("style of a dimension"),
        );
      }}
    />
  );
}

export function DimensionFields({ piece, edits }: Of<DimensionSpec>) {
  const { spec } = piece;
  const change = (to: Partial<DimensionSpec>, what: string) => void edits.changeSpec(piece, to, what);
  const single = spec.points.length === 2;
  const byHand = spec.shifts.some(([x, y]) => x || y);
  return (
    <Group name={t("Dimension")}>
      <Rows>
        <ChoiceField
          label={t("Measures")}
          width={136}
          value={spec.measures}
          choices={MEASURES}
          onChoose={(to) =>
            change({ measures: to as DimensionSpec["measures"] }, t("what a dimension measures"))
          }
        />
        <Figures piece={piece} edits={edits} />
      </Rows>
      <Rows>
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <FigureField
            label={t("From first point")}
            unit="mm"
            number
            width={136}
            value={String(spec.offset)}
            onCommit={(to) => change({ offset: Number(to) }, t("move a dimension"))}
          />
          {byHand && (
            <Buttons>
              <ToggleButton
                on={false}
                name={t("Figures back")}
                tip={t("Figures that were moved by hand return to where they stand by themselves")}
                onToggle={() => change({ shifts: [] }, t("figures back to their places"))}
              />
            </Buttons>
          )}
        </Box>
        {single && (
          <FigureField
            label={t("Typed over the figure")}
            width={136}
            value={spec.overrides[0] ?? ""}
            placeholder={t("true figure")}
            onCommit={(text) => change({ overrides: text ? [text] : [] }, t("text of a dimension"))}
          />
        )}
        {!single && spec.arrangement !== "base" && (
          <Buttons>
            <ToggleButton
              on={spec.together}
              name={t("Equal lengths as one")}
              tip={t("Such as 4 × 600 = 2400")}
              onToggle={() => change({ together: !spec.together }, t("equal lengths as one or not"))}
            />
          </Buttons>
        )}
      </Rows>
      {!single && (
        <ChoiceField
          label={t("Lengths")}
          width={168}
          value={spec.arrangement}
          choices={ARRANGEMENTS}
          onChoose={(to) =>
            change({ arrangement: to as DimensionSpec["arrangement"] }, t("how lengths are arranged"))
          }
        />
      )}
    </Group>
  );
}

export function MeasureFields({ piece, edits }: Of<MeasureSpec>) {
  const { spec } = piece;
  const change = (to: Partial<MeasureSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name={MEASURE_NAMES[spec.of]}>
      <Rows>
        {spec.of === "slope" ? (
          <ChoiceField
            label={t("Given")}
            width={136}
            value={spec.slope_in}
            choices={SLOPES}
            onChoose={(to) => change({ slope_in: to as MeasureSpec["slope_in"] }, t("how a slope is given"))}
          />
        ) : (
          spec.of !== "angle" && <Figures piece={piece} edits={edits} />
        )}
        <FigureField
          label={t("Typed over the figure")}
          width={136}
          value={spec.override}
          placeholder={t("true figure")}
          onCommit={(override) => change({ override }, t("text of a measure"))}
        />
      </Rows>
    </Group>
  );
}
const MEASURE_NAMES: Record<MeasureSpec["of"], string> = {
  angle: t("Angle"),
  radius: t("Radius"),
  diameter: t("Diameter"),
  arc: t("Arc"),
  slope: t("Slope"),
  area: t("Area"),
};

export function LevelFields({ piece, edits }: Of<SpotLevelSpec>) {
  const { spec } = piece;
  const change = (to: Partial<SpotLevelSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name={t("Spot level")}>
      <Rows>
        <FigureField
          label={t("Typed over the figure")}
          width={136}
          value={spec.override}
          placeholder={t("true figure")}
          onCommit={(override) => change({ override }, t("text of a level"))}
        />
        <ToggleButton
          on={spec.feet}
          name={t("Feet and inches")}
          tip={t("In feet and inches, and not in metres")}
          onToggle={() => change({ feet: !spec.feet }, t("unit of a level"))}
        />
      </Rows>
    </Group>
  );
}
