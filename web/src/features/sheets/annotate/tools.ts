/** The tools of annotation: what they are called, how many points they want, and what to click next. */
import type { MeasureSpec, ShapeSpec } from "../../../api/client";
import type { Point } from "../../../canvas/geometry";
import { circleThrough } from "../../../canvas/roundLines";
import type { PointsFor, Tool } from "../../../stores/annotating";

export const TOOL_NAMES: Record<Tool, string> = {
  dimension: "Dimension",
  measure: "Measure",
  note: "Note",
  numbered: "Numbered note",
  level: "Spot level",
  tag: "Tag",
  schedule: "Schedule",
  table: "Table",
  shape: "Shape",
  cloud: "Cloud",
  symbol: "Symbol",
  image: "Image",
};

const MEASURE_POINTS: Record<MeasureSpec["of"], [number, number]> = {
  angle: [3, 3],
  radius: [3, 3],
  diameter: [3, 3],
  arc: [3, 3],
  slope: [2, 2],
  area: [3, 200],
};
const SHAPE_POINTS: Record<ShapeSpec["form"], [number, number]> = {
  line: [2, 500],
  rectangle: [2, 2],
  circle: [2, 2],
  arc: [3, 3],
  ellipse: [3, 3],
  curve: [3, 500],
};

/** The least and the most points of a measure or of a shape. */
export const pointsOf = (
  of: "measure" | "shape",
  form: MeasureSpec["of"] | ShapeSpec["form"],
): [number, number] =>
  of === "measure" ? MEASURE_POINTS[form as MeasureSpec["of"]] : SHAPE_POINTS[form as ShapeSpec["form"]];

const middle = (points: readonly Point[]): Point => [
  points.reduce((sum, p) => sum + p[0], 0) / points.length,
  points.reduce((sum, p) => sum + p[1], 0) / points.length,
];

/** The centre of the circle through three points; the first of them where they lie on a line. */
export function centreOf(points: readonly Point[]): Point {
  const [a = [0, 0], b = [0, 0], c = [0, 0]] = points as Point[];
  return circleThrough(a, b, c)?.centre ?? a;
}

/** From where the place of a measure's figure is counted, as the core has it. */
export const FIGURE_AT: Record<MeasureSpec["of"], (points: readonly Point[]) => Point> = {
  angle: ([corner = [0, 0]]) => corner,
  radius: centreOf,
  diameter: centreOf,
  arc: centreOf,
  slope: middle,
  area: middle,
};

const MEASURE_HINTS: Record<MeasureSpec["of"], readonly string[]> = {
  angle: [
    "Click the corner of the angle.",
    "Click a point on its first side.",
    "Click a point on its other side.",
  ],
  radius: ["Click a point of the curve.", "Click a second point of it.", "Click a third."],
  diameter: ["Click a point of the curve.", "Click a second point of it.", "Click a third."],
  arc: ["Click where the arc begins.", "Click a point on it.", "Click where it ends."],
  slope: ["Click a point of the slope.", "Click a second point of it."],
  area: ["Click a corner of the area.", "Click the next corner.", "Click the next corner."],
};
const SHAPE_HINTS: Record<ShapeSpec["form"], readonly string[]> = {
  line: ["Click where the line begins.", "Click the next point."],
  curve: ["Click where the curve begins.", "Click the next point.", "Click the next point."],
  rectangle: ["Click a corner.", "Click the opposite corner."],
  circle: ["Click the centre.", "Click a point of the circle."],
  arc: ["Click where the arc begins.", "Click a point on it.", "Click where it ends."],
  ellipse: ["Click the centre.", "Click the end of one axis.", "Click how far out the other axis reaches."],
};
const GOES_ON = " Enter, or a second click on the last point, ends it; a click on the first closes it.";

interface Now {
  tool: Tool;
  points: number;
  measure: MeasureSpec["of"];
  form: ShapeSpec["form"];
  measures: string;
  extending: boolean;
  attaching: boolean;
  pointsFor: PointsFor["what"] | null;
}

/** What the next click does. */
export function hint(now: Now): string {
  const { tool, points } = now;
  if (now.pointsFor) return POINTS_FOR[now.pointsFor][points] ?? "";
  if (now.attaching) return `Click what it is to be attached to: point ${points + 1}.`;
  switch (tool) {
    case "schedule":
    case "table":
      return "Click where its upper left corner is to lie.";
    case "image":
      return "Click where the upper left corner of the picture is to lie.";
    case "symbol":
      return "Click where it is to stand; again for another.";
    case "cloud":
      return points ? "Click the opposite corner." : "Click one corner of what has changed.";
    case "tag":
      return "Click an element. All of a drawing are tagged from its ledge, More.";
    case "level":
      return "Click a point of an elevation or a section.";
    case "note":
      return points ? "Click where the words begin." : "Click what the note speaks of.";
    case "numbered":
      return points ? "Click where the number stands." : "Click what the note speaks of.";
    case "measure": {
      const [least] = pointsOf("measure", now.measure);
      if (points < least) return MEASURE_HINTS[now.measure][points] ?? "";
      return now.measure === "area"
        ? "Click the next corner; a click on the first one closes the outline."
        : "Click where the figure stands.";
    }
    case "shape": {
      const [least, most] = pointsOf("shape", now.form);
      const text = SHAPE_HINTS[now.form][Math.min(points, SHAPE_HINTS[now.form].length - 1)] ?? "";
      return most > least && points >= least ? text + GOES_ON : text;
    }
    case "dimension":
      if (now.extending) return "Click further points to add lengths to this chain.";
      if (now.measures === "along")
        return points
          ? "Click where the line ends: all that it crosses is dimensioned along it."
          : "Click where a line across the plan begins.";
      if (points < 2) return points ? "Click the second point." : "Click the first point to measure from.";
      return "Click where the dimension line lies; with Shift, a further point.";
  }
}

/** What is clicked for what is done with points, in order. */
export const POINTS_FOR: Record<PointsFor["what"], readonly string[]> = {
  mirror: ["Click a point of the line to mirror in.", "Click a second point of that line."],
  array: ["Click a point of what is repeated.", "Click where that point lies in the next one."],
  break: ["Click where the line is to be broken."],
  trim: ["Click the part that is to go, between the others."],
  leader: ["Click what else it speaks of."],
  "line up": [
    "Click a point of this drawing.",
    "Click where that point lies in the other drawing.",
    "Click a second point of this drawing, far from the first.",
    "Click where that point lies in the other drawing.",
  ],
};
