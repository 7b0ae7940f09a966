/** What a dimension, a measure or a level measures, and how its figure is lettered. */
import Box from "@mui/material/Box";
import type { AnnotationSpec, DimensionSpec, MeasureSpec, SpotLevelSpec } from "../../../api/client";
import { ChoiceField } from "../../../components/ChoiceField";
import { FigureField } from "../../../components/FigureField";
import { Buttons, Group, Rows } from "../../../components/Ledge";
import { ToggleButton } from "../../../components/ToggleButton";
import { ARRANGEMENTS, MEASURES, SLOPES, STYLES } from "./pieceChoices";
import { useNamed, type Of } from "./pieceProps";

/** The unit of figures, or a named style. */
function Figures<S extends DimensionSpec | MeasureSpec>({ piece, edits }: Of<S>) {
  const spec: DimensionSpec | MeasureSpec = piece.spec;
  const named = useNamed(piece.project, "dimension");
  return (
    <ChoiceField
      label="Figures in"
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
          "style of a dimension",
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
    <Group name="Dimension">
      <Rows>
        <ChoiceField
          label="Measures"
          width={136}
          value={spec.measures}
          choices={MEASURES}
          onChoose={(to) =>
            change({ measures: to as DimensionSpec["measures"] }, "what a dimension measures")
          }
        />
        <Figures piece={piece} edits={edits} />
      </Rows>
      <Rows>
        <Box sx={{ display: "flex", gap: 0.75 }}>
          <FigureField
            label="From first point"
            unit="mm"
            number
            width={136}
            value={String(spec.offset)}
            onCommit={(to) => change({ offset: Number(to) }, "move a dimension")}
          />
          {byHand && (
            <Buttons>
              <ToggleButton
                on={false}
                name="Figures back"
                tip="Figures that were moved by hand return to where they stand by themselves"
                onToggle={() => change({ shifts: [] }, "figures back to their places")}
              />
            </Buttons>
          )}
        </Box>
        {single && (
          <FigureField
            label="Typed over the figure"
            width={136}
            value={spec.overrides[0] ?? ""}
            placeholder="true figure"
            onCommit={(text) => change({ overrides: text ? [text] : [] }, "text of a dimension")}
          />
        )}
        {!single && spec.arrangement !== "base" && (
          <Buttons>
            <ToggleButton
              on={spec.together}
              name="Equal lengths as one"
              tip="Such as 4 × 600 = 2400"
              onToggle={() => change({ together: !spec.together }, "equal lengths as one or not")}
            />
          </Buttons>
        )}
      </Rows>
      {!single && (
        <ChoiceField
          label="Lengths"
          width={168}
          value={spec.arrangement}
          choices={ARRANGEMENTS}
          onChoose={(to) =>
            change({ arrangement: to as DimensionSpec["arrangement"] }, "how lengths are arranged")
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
            label="Given"
            width={136}
            value={spec.slope_in}
            choices={SLOPES}
            onChoose={(to) => change({ slope_in: to as MeasureSpec["slope_in"] }, "how a slope is given")}
          />
        ) : (
          spec.of !== "angle" && <Figures piece={piece} edits={edits} />
        )}
        <FigureField
          label="Typed over the figure"
          width={136}
          value={spec.override}
          placeholder="true figure"
          onCommit={(override) => change({ override }, "text of a measure")}
        />
      </Rows>
    </Group>
  );
}
const MEASURE_NAMES: Record<MeasureSpec["of"], string> = {
  angle: "Angle",
  radius: "Radius",
  diameter: "Diameter",
  arc: "Arc",
  slope: "Slope",
  area: "Area",
};

export function LevelFields({ piece, edits }: Of<SpotLevelSpec>) {
  const { spec } = piece;
  const change = (to: Partial<SpotLevelSpec>, what: string) => void edits.changeSpec(piece, to, what);
  return (
    <Group name="Spot level">
      <Rows>
        <FigureField
          label="Typed over the figure"
          width={136}
          value={spec.override}
          placeholder="true figure"
          onCommit={(override) => change({ override }, "text of a level")}
        />
        <ToggleButton
          on={spec.feet}
          name="Feet and inches"
          tip="In feet and inches, and not in metres"
          onToggle={() => change({ feet: !spec.feet }, "unit of a level")}
        />
      </Rows>
    </Group>
  );
}
