/** The named styles of a project: how words and dimensions are lettered wherever they have the style. */
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { AnnotationStyle, DimensionStyleSpec, TextStyleSpec } from "../../../api/client";
import { useAnnotationStyles } from "../../../api/annotations";
import { ChoiceField } from "../../../components/ChoiceField";
import { ColourField } from "../../../components/ColourField";
import { FigureField } from "../../../components/FigureField";
import { TitledDialog } from "../../../components/TitledDialog";
import { ToggleButton } from "../../../components/ToggleButton";
import { commit } from "../../../sync/commands";
import { changing, deleting, making, newId } from "../../../sync/rows";
import { colours } from "../../../theme/theme";
import { SIZES, STYLES, TERMINATORS, TEXT_PLACES } from "./pieceChoices";
import { t } from "../../../words/words";

const NOTHING: never[] = [];
const NEW_TEXT: TextStyleSpec = { of: "text", size: 2.5, bold: false, colour: "#1b1f24" };
const NEW_DIMENSION: DimensionStyleSpec = {
  of: "dimension",
  unit: "millimetres",
  decimals: 0,
  fixed: false,
  text: 2.5,
  terminator: "stroke",
  place: "above",
  gap: 1.5,
  plus: 0,
  minus: 0,
};

export function StylesDialog({ project, onClose }: { project: string; onClose: () => void }) {
  const { data: styles = NOTHING } = useAnnotationStyles(project);
  const add = (spec: AnnotationStyle["spec"], wanted: string) => {
    const names = styles.map((style) => style.name);
    let name = wanted;
    for (let k = 2; names.includes(name); k++) name = `${wanted} ${k}`;
    void commit(project, t("add the style “{name}”", { name }), [
      making("annotation_styles", { id: newId(), project, name, spec }),
    ]);
  };
  const change = (style: AnnotationStyle, to: Partial<AnnotationStyle>) =>
    void commit(project, t("the style “{name}”", { name: style.name }), [
      changing("annotation_styles", style, to),
    ]);
  return (
    <TitledDialog
      title={t("Styles of words and dimensions")}
      text={
        <>
          {t(
            "Whatever has a style follows it. A style that is deleted leaves its pieces as they are " +
              "by themselves.",
          )}
        </>
      }
      width="md"
      onClose={onClose}
      foot={
        <>
          <Button variant="outlined" onClick={() => add(NEW_TEXT, t("Text"))}>
            {t("New style of words")}
          </Button>
          <Button variant="outlined" onClick={() => add(NEW_DIMENSION, t("Dimensions"))}>
            {t("New style of dimensions")}
          </Button>
          <Button variant="contained" onClick={onClose} sx={{ ml: "auto" }}>
            {t("Done")}
          </Button>
        </>
      }
    >
      <Box sx={{ maxHeight: "56vh", overflowY: "auto", display: "flex", flexDirection: "column", gap: 1 }}>
        {styles.map((style) => (
          <Box
            key={style.id}
            role="group"
            aria-label={t("Style {name}", { name: style.name })}
            sx={{
              display: "flex",
              flexWrap: "wrap",
              gap: 0.75,
              alignItems: "flex-end",
              pb: 1,
              borderBottom: `1px solid ${colours.sandDeep}`,
            }}
          >
            <FigureField
              label={style.spec.of === "text" ? t("Words") : t("Dimensions")}
              width={150}
              value={style.name}
              onCommit={(name) => name && change(style, { name })}
            />
            {style.spec.of === "text" ? (
              <OfText spec={style.spec} onChange={(spec) => change(style, { spec })} />
            ) : (
              <OfDimensions spec={style.spec} onChange={(spec) => change(style, { spec })} />
            )}
            <Button
              onClick={() =>
                void commit(project, t("delete the style “{name}”", { name: style.name }), [
                  deleting("annotation_styles", style),
                ])
              }
              sx={{ px: 0.75, ml: "auto" }}
            >
              {t("Delete")}
            </Button>
          </Box>
        ))}
        {!styles.length && (
          <Box sx={{ fontSize: 13, color: "text.secondary", py: 1 }}>{t("There is no named style yet.")}</Box>
        )}
      </Box>
    </TitledDialog>
  );
}

function OfText({ spec, onChange }: { spec: TextStyleSpec; onChange: (spec: TextStyleSpec) => void }) {
  return (
    <>
      <ChoiceField
        label={t("Height")}
        width={90}
        value={String(spec.size)}
        choices={
          SIZES.some(([size]) => size === String(spec.size))
            ? SIZES
            : [...SIZES, [String(spec.size), t("{size} mm", { size: spec.size })]]
        }
        onChoose={(size) => onChange({ ...spec, size: Number(size) })}
      />
      <ToggleButton
        on={spec.bold}
        name={t("Bold")}
        tip={t("All words")}
        onToggle={() => onChange({ ...spec, bold: !spec.bold })}
      />
      <ColourField
        label={t("Colour")}
        value={spec.colour}
        onChange={(colour) => onChange({ ...spec, colour })}
      />
    </>
  );
}

function OfDimensions({
  spec,
  onChange,
}: {
  spec: DimensionStyleSpec;
  onChange: (spec: DimensionStyleSpec) => void;
}) {
  const set = (to: Partial<DimensionStyleSpec>) => onChange({ ...spec, ...to });
  const figure = (label: string, key: "text" | "gap" | "plus" | "minus", width = 78) => (
    <FigureField
      label={label}
      number
      width={width}
      value={String(spec[key])}
      onCommit={(value) => set({ [key]: Number(value) })}
    />
  );
  return (
    <>
      <ChoiceField
        label={t("Unit")}
        width={124}
        value={spec.unit}
        choices={STYLES}
        onChoose={(unit) => set({ unit: unit as DimensionStyleSpec["unit"] })}
      />
      <ChoiceField
        label={spec.unit === "feet" ? t("To parts of an inch") : t("Decimals")}
        width={104}
        value={String(spec.decimals)}
        choices={[0, 1, 2, 3, 4, 5].map(
          (n) => [String(n), spec.unit === "feet" ? (n ? `1/${2 ** n}` : "whole") : String(n)] as const,
        )}
        onChoose={(n) => set({ decimals: Number(n) })}
      />
      <ToggleButton
        on={spec.fixed}
        name={t("End zeros")}
        tip={t("Zeros at the end are written, such as 4.20")}
        onToggle={() => set({ fixed: !spec.fixed })}
      />
      <ChoiceField
        label={t("Ends")}
        width={92}
        value={spec.terminator}
        choices={TERMINATORS}
        onChoose={(to) => set({ terminator: to as DimensionStyleSpec["terminator"] })}
      />
      <ChoiceField
        label={t("Figures")}
        width={116}
        value={spec.place}
        choices={TEXT_PLACES}
        onChoose={(to) => set({ place: to as DimensionStyleSpec["place"] })}
      />
      {figure(t("Height (mm)"), "text")}
      {figure(t("Gap (mm)"), "gap")}
      {figure(t("Plus (mm)"), "plus", 70)}
      {figure(t("Minus (mm)"), "minus", 70)}
    </>
  );
}
