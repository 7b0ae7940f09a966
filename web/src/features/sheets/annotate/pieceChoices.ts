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

export const MEASURES = choicesOf<DimensionSpec["measures"]>({
  horizontal: "Horizontally",
  vertical: "Vertically",
  aligned: "Along the points",
});
export const ARRANGEMENTS = choicesOf<DimensionSpec["arrangement"]>({
  chain: "One after another",
  base: "From the first point",
  overall: "With the overall length",
});
export const STYLES = choicesOf<DimensionSpec["style"]>({
  millimetres: "Millimetres",
  centimetres: "Centimetres",
  metres: "Metres",
  feet: "Feet and inches",
});
export const LEADERS = choicesOf<NoteSpec["leader"]>({
  arrow: "With an arrow",
  dot: "With a dot",
  plain: "Plain",
  none: "None",
});
export const ALIGNS = choicesOf<NoteSpec["align"]>({ left: "Left", middle: "Middle", right: "Right" });
export const MARKS = choicesOf<NumberedNoteSpec["mark"]>({
  circle: "Circle",
  hexagon: "Hexagon",
  box: "Box",
});
export const TAG_WORDS = choicesOf<TagSpec["shows"]>({
  number: "Number",
  size: "Size",
  both: "Number and size",
  value: "Another value",
});
/** Where pieces that are made for a whole drawing belong. */
export const HOMES = choicesOf<"sheet" | "view">({
  sheet: "This viewport only",
  view: "Its view, on every sheet",
});
export const LISTED = choicesOf<ScheduleSpec["of"]>({
  rooms: "Rooms",
  doors: "Doors",
  windows: "Windows",
  elements: "Elements by class",
  notes: "Numbered notes here",
  symbols: "Symbols of the set",
});
export const MEASURED = choicesOf<MeasureSpec["of"]>({
  angle: "An angle",
  radius: "A radius",
  diameter: "A diameter",
  arc: "An arc",
  slope: "A slope",
  area: "An area",
});
export const SLOPES = choicesOf<MeasureSpec["slope_in"]>({
  percent: "Per cent",
  ratio: "As a ratio",
  degrees: "Degrees",
});
export const FORMS = choicesOf<ShapeSpec["form"]>({
  line: "Line",
  rectangle: "Rectangle",
  circle: "Circle",
  arc: "Arc",
  ellipse: "Ellipse",
  curve: "Smooth curve",
});
export const PATTERNS = choicesOf<ShapeSpec["pattern"]>({
  solid: "Solid",
  dashed: "Dashed",
  "short dashes": "Short dashes",
  dotted: "Dotted",
  chain: "Chain",
  "double chain": "Double chain",
});
export const HATCHES = choicesOf<ShapeSpec["hatch"]>({
  "": "None",
  diagonal: "Diagonal",
  pairs: "Pairs",
  crossed: "Crossed",
  grain: "Grain",
  stipple: "Stipple",
  loops: "Loops",
  earth: "Earth",
});
export const WIDTHS = ["0", "0.13", "0.18", "0.25", "0.35", "0.5", "0.7", "1"].map(
  (width) => [width, width === "0" ? "No line" : `${width} mm`] as const,
);
export const FILLS = [
  ["", "No fill"],
  ["#ffffff", "Paper: hides what is below"],
  ["#1b1f24", "Ink"],
  ["#6b7378", "Grey"],
  ["#a9afb3", "Pale grey"],
  ["#e8e4da", "Sand"],
  ["#9c3f24", "Rust"],
  ["#2d5c66", "Sea"],
] as const;
export const BORDERS = choicesOf<TableSpec["borders"]>({
  all: "Around every cell",
  rows: "Between rows",
  none: "None",
});
export const TERMINATORS = choicesOf<DimensionStyleSpec["terminator"]>({
  stroke: "Strokes",
  arrow: "Arrows",
  dot: "Dots",
});
export const TEXT_PLACES = choicesOf<DimensionStyleSpec["place"]>({
  above: "Above the line",
  inside: "In the line",
});
export const SIZES = ["1.8", "2.5", "3.5", "5", "7"].map((size) => [size, `${size} mm`] as const);

/** The columns of a schedule that names none, as the core has them. */
const USUAL: Record<ScheduleSpec["of"], readonly string[]> = {
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
  USUAL[of].map((source) => ({
    source,
    caption: "",
    total: source === "Area",
    width: source === "Text" ? NOTE_WIDTH : 0,
  }));

/** A class as people say it: IfcWallStandardCase is a wall standard case. */
export const classWords = (name: string): string => {
  const words = name.replace(/^Ifc/, "").replace(/([a-z])([A-Z])/g, "$1 $2");
  return words.charAt(0) + words.slice(1).toLocaleLowerCase();
};
