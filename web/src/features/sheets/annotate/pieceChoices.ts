/** What pieces of annotation can be, in the words of the screen. */
import type {
  DimensionSpec,
  DimensionStyleSpec,
  MeasureSpec,
  NoteSpec,
  NumberedNoteSpec,
  ScheduleSpec,
  ShapeSpec,
  TableSpec,
  TagSpec,
} from "../../../api/client";
import { choicesOf } from "../../../components/choices";
import { t } from "../../../words/words";

export const MEASURES = choicesOf<DimensionSpec["measures"]>({
  horizontal: t("Horizontally"),
  vertical: t("Vertically"),
  aligned: t("Along the points"),
});
export const ARRANGEMENTS = choicesOf<DimensionSpec["arrangement"]>({
  chain: t("One after another"),
  base: t("From the first point"),
  overall: t("With the overall length"),
});
export const STYLES = choicesOf<DimensionSpec["style"]>({
  millimetres: t("Millimetres"),
  centimetres: t("Centimetres"),
  metres: t("Metres"),
  feet: t("Feet and inches"),
});
export const LEADERS = choicesOf<NoteSpec["leader"]>({
  arrow: t("With an arrow"),
  dot: t("With a dot"),
  plain: t("Plain"),
  none: t("None"),
});
export const ALIGNS = choicesOf<NoteSpec["align"]>({
  left: t("Left"),
  middle: t("Middle"),
  right: t("Right"),
});
export const MARKS = choicesOf<NumberedNoteSpec["mark"]>({
  circle: t("Circle"),
  hexagon: t("Hexagon"),
  box: t("Box"),
});
export const TAG_WORDS = choicesOf<TagSpec["shows"]>({
  number: t("Number"),
  size: t("Size"),
  both: t("Number and size"),
  value: t("Another value"),
});
/** Where pieces that are made for a whole drawing belong. */
export const HOMES = choicesOf<"sheet" | "view">({
  sheet: t("This viewport only"),
  view: t("Its view, on every sheet"),
});
export const LISTED = choicesOf<ScheduleSpec["of"]>({
  rooms: t("Rooms"),
  doors: t("Doors"),
  windows: "Windows",
  elements: t("Elements by class"),
  notes: t("Numbered notes here"),
  symbols: t("Symbols of the set"),
});
export const MEASURED = choicesOf<MeasureSpec["of"]>({
  angle: t("An angle"),
  radius: t("A radius"),
  diameter: t("A diameter"),
  arc: t("An arc"),
  slope: t("A slope"),
  area: t("An area"),
});
export const SLOPES = choicesOf<MeasureSpec["slope_in"]>({
  percent: t("Per cent"),
  ratio: t("As a ratio"),
  degrees: t("Degrees"),
});
export const FORMS = choicesOf<ShapeSpec["form"]>({
  line: t("Line"),
  rectangle: t("Rectangle"),
  circle: t("Circle"),
  arc: t("Arc"),
  ellipse: t("Ellipse"),
  curve: t("Smooth curve"),
});
export const PATTERNS = choicesOf<ShapeSpec["pattern"]>({
  solid: t("Solid"),
  dashed: t("Dashed"),
  "short dashes": t("Short dashes"),
  dotted: t("Dotted"),
  chain: t("Chain"),
  "double chain": t("Double chain"),
});
export const HATCHES = choicesOf<ShapeSpec["hatch"]>({
  "": t("None"),
  diagonal: t("Diagonal"),
  pairs: t("Pairs"),
  crossed: t("Crossed"),
  grain: t("Grain"),
  stipple: t("Stipple"),
  loops: t("Loops"),
  earth: t("Earth"),
});
export const WIDTHS = ["0", "0.13", "0.18", "0.25", "0.35", "0.5", "0.7", "1"].map(
  (width) => [width, width === "0" ? t("No line") : t("{width} mm", { width })] as const,
);
export const FILLS = [
  ["", t("No fill")],
  ["#ffffff", t("Paper: hides what is below")],
  ["#1b1f24", t("Ink")],
  ["#6b7378", t("Grey")],
  ["#a9afb3", t("Pale grey")],
  ["#e8e4da", t("Sand")],
  ["#9c3f24", t("Rust")],
  ["#2d5c66", t("Sea")],
] as const;
export const BORDERS = choicesOf<TableSpec["borders"]>({
  all: t("Around every cell"),
  rows: t("Between rows"),
  none: t("None"),
});
export const TERMINATORS = choicesOf<DimensionStyleSpec["terminator"]>({
  stroke: t("Strokes"),
  arrow: t("Arrows"),
  dot: t("Dots"),
});
export const TEXT_PLACES = choicesOf<DimensionStyleSpec["place"]>({
  above: t("Above the line"),
  inside: t("In the line"),
});
export const SIZES = ["1.8", "2.5", "3.5", "5", "7"].map((size) => [size, t("{size} mm", { size })] as const);

/** The columns of a schedule that names none, as the core has them. */
const DEFAULT_COLUMNS: Record<ScheduleSpec["of"], readonly string[]> = {
  rooms: ["Number", "Name", "Storey", "Area"],
  doors: ["Number", "Storey", "Width", "Height"],
  windows: ["Number", "Storey", "Width", "Height"],
  elements: ["Class", "Name", "Storey", "Material"],
  notes: ["Number", "Text"],
  symbols: ["Name", "Count"],
};
/** How wide the words of a note stand in a schedule, paper mm. */
const NOTE_WIDTH = 90;

export const usualColumns = (of: ScheduleSpec["of"]): ScheduleSpec["columns"] =>
  DEFAULT_COLUMNS[of].map((source) => ({
    source,
    caption: "",
    total: source === "Area",
    width: source === "Text" ? NOTE_WIDTH : 0,
  }));
