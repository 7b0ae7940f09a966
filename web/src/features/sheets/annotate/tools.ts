/** The tools of annotation: what they are called, how many points they want, and what to click next. */
import type { MeasureSpec, ShapeSpec } from "../../../api/client";
import type { Point } from "../../../canvas/geometry";
import { circleThrough } from "../../../canvas/roundLines";
import type { PointsFor, Tool } from "../../../stores/annotating";
import { t } from "../../../words/words";

export const TOOL_NAMES: Record<Tool, string> = {
  dimension: t("Dimension"),
  measure: t("Measure"),
  note: t("Note"),
  numbered: t("Numbered note"),
  level: t("Spot level"),
  tag: t("Tag"),
  schedule: t("Schedule"),
  table: t("Table"),
  shape: t("Shape"),
  cloud: t("Cloud"),
  symbol: t("Symbol"),
  image: t("Image"),
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
    t("Click the corner of the angle."),
    t("Click a point on its first side."),
    t("Click a point on its other side."),
  ],
  radius: [t("Click a point of the curve."), t("Click a second point of it."), t("Click a third.")],
  diameter: [t("Click a point of the curve."), t("Click a second point of it."), t("Click a third.")],
  arc: [t("Click where the arc begins."), t("Click a point on it."), t("Click where it ends.")],
  slope: [t("Click a point of the slope."), t("Click a second point of it.")],
  area: [t("Click a corner of the area."), t("Click the next corner."), t("Click the next corner.")],
};
const SHAPE_HINTS: Record<ShapeSpec["form"], readonly string[]> = {
  line: [t("Click where the line begins."), t("Click the next point.")],
  curve: [t("Click where the curve begins."), t("Click the next point."), t("Click the next point.")],
  rectangle: [t("Click a corner."), t("Click the opposite corner.")],
  circle: [t("Click the centre."), t("Click a point of the circle.")],
  arc: [t("Click where the arc begins."), t("Click a point on it."), t("Click where it ends.")],
  ellipse: [
    t("Click the centre."),
    t("Click the end of one axis."),
    t("Click how far out the other axis reaches."),
  ],
};
const GOES_ON = t(" Enter, or a second click on the last point, ends it; a click on the first closes it.");

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
  if (now.attaching) return t("Click what it is to be attached to: point {points}.", { points: points + 1 });
  switch (tool) {
    case "schedule":
    case "table":
      return t("Click where its upper left corner is to lie.");
    case "image":
      return t("Click where the upper left corner of the picture is to lie.");
    case "symbol":
      return t("Click where it is to stand; again for another.");
    case "cloud":
      return points ? t("Click the opposite corner.") : t("Click one corner of what has changed.");
    case "tag":
      return t("Click an element. All of a drawing are tagged from its ledge, More.");
    case "level":
      return t("Click a point of an elevation or a section.");
    case "note":
      return points ? t("Click where the words begin.") : t("Click what the note speaks of.");
    case "numbered":
      return points ? t("Click where the number stands.") : t("Click what the note speaks of.");
    case "measure": {
      const [least] = pointsOf("measure", now.measure);
      if (points < least) return MEASURE_HINTS[now.measure][points] ?? "";
      return now.measure === "area"
        ? t("Click the next corner; a click on the first one closes the outline.")
        : t("Click where the figure stands.");
    }
    case "shape": {
      const [least, most] = pointsOf("shape", now.form);
      const text = SHAPE_HINTS[now.form][Math.min(points, SHAPE_HINTS[now.form].length - 1)] ?? "";
      return most > least && points >= least ? text + GOES_ON : text;
    }
    case "dimension":
      if (now.extending) return t("Click further points to add lengths to this chain.");
      if (now.measures === "along")
        return points
          ? t("Click where the line ends: all that it crosses is dimensioned along it.")
          : t("Click where a line across the plan begins.");
      if (points < 2)
        return points ? t("Click the second point.") : t("Click the first point to measure from.");
      return t("Click where the dimension line lies; with Shift, a further point.");
  }
}

/** What is clicked for what is done with points, in order. */
export const POINTS_FOR: Record<PointsFor["what"], readonly string[]> = {
  mirror: [t("Click a point of the line to mirror in."), t("Click a second point of that line.")],
  array: [t("Click a point of what is repeated."), t("Click where that point lies in the next one.")],
  break: [t("Click where the line is to be broken.")],
  trim: [t("Click the part that is to go, between the others.")],
  leader: [t("Click what else it speaks of.")],
  "line up": [
    t("Click a point of this drawing."),
    t("Click where that point lies in the other drawing."),
    t("Click a second point of this drawing, far from the first."),
    t("Click where that point lies in the other drawing."),
  ],
};
