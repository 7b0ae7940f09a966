/** What is clicked in a drawing as it is remembered, what is like it, and what touch-ups are called. */
import type { TouchUpChange, TouchUpChoice } from "../../../api/client";
import type { Point } from "../../../canvas/geometry";
import type { Picked } from "../../../canvas/picking";
import { lengthOf } from "../../../canvas/patterns";

const anchor = (at: Point, element: string) => ({
  at: [...at] as [number, number],
  element,
  ends: [],
  share: 0,
});
type Alike = Extract<TouchUpChoice, { kind: "alike" }>;
const alike = (what: Partial<Alike>): Alike => ({
  kind: "alike",
  element: "",
  ifc_class: "",
  made_of: "",
  layer: "",
  ...what,
});
type Stretch = Extract<TouchUpChoice, { kind: "stretch" }>;

export const stretch = (element: string, a: Point, b: Point): Stretch => ({
  kind: "stretch",
  element,
  start: anchor(a, element),
  end: anchor(b, element),
});

/** What was clicked, as it is remembered: a cut, something round, or a straight line. */
export function choiceOf({ element, role, material, points, round }: Picked): TouchUpChoice {
  if (material !== null) return { kind: "area", element, material };
  if (round) return { kind: "round", element, centre: anchor(round.centre, element), radius: round.radius };
  const [first, last] = [points[0], points.at(-1)];
  return first && last ? stretch(element, first, last) : alike({ element, role: role as Alike["role"] });
}

/** One line drawn out to another: from the end of it that was clicked. */
export function extension(line: Picked, clicked: Point, to: Picked): TouchUpChoice | null {
  const [a, b] = [line.points[0], line.points.at(-1)];
  const [c, d] = [to.points[0], to.points.at(-1)];
  if (!a || !b || !c || !d || line.round || to.round) return null;
  const far = (p: Point) => Math.hypot(p[0] - clicked[0], p[1] - clicked[1]);
  const [start, end] = far(a) < far(b) ? [b, a] : [a, b];
  const { start: first, end: last } = stretch(to.element, c, d);
  return { ...stretch(line.element, start, end), kind: "extension", first, last };
}

/** A class of the file in words: IfcDoor as door. */
export const classWords = (name: string) =>
  name
    .replace(/^Ifc/, "")
    .replace(/StandardCase$/, "")
    .replaceAll(/([a-z])([A-Z])/g, "$1 $2")
    .toLowerCase();

export const asSentence = (words: string) => `${words.slice(0, 1).toUpperCase()}${words.slice(1)}`;

/** What can be chosen beside what was clicked, because it is like it. */
export function likes(picked: Picked): [name: string, choice: TouchUpChoice][] {
  const { element, layer, ifcClass, madeOf, material } = picked;
  const role = picked.role as NonNullable<Alike["role"]>;
  const own = classWords(ifcClass) || "element";
  if (material !== null) return [[`All that is cut of this ${own}`, { kind: "area", element, material: "" }]];
  const length = lengthOf(picked.points);
  return [
    [`All lines of this ${own}`, alike({ element })],
    [`All ${role} lines of this ${own}`, alike({ element, role })],
    [`This ${own} but its outline`, { kind: "inside", element }],
    ...(ifcClass
      ? ([
          [`All lines of every ${own}`, alike({ ifc_class: ifcClass })],
          [`All ${role} lines of every ${own}`, alike({ ifc_class: ifcClass, role })],
        ] as [string, TouchUpChoice][])
      : []),
    ...(madeOf
      ? ([[`All lines of ${madeOf}`, alike({ made_of: madeOf })]] as [string, TouchUpChoice][])
      : []),
    ...(layer ? ([[`All lines on layer ${layer}`, alike({ layer })]] as [string, TouchUpChoice][]) : []),
    [`All ${role} lines`, alike({ role })],
    [`All lines no longer than this (${Math.round(length)} mm)`, alike({ shorter: Math.ceil(length) + 1 })],
  ];
}

/** What a touch-up chooses, in words. */
export function choiceWords(choice: TouchUpChoice): string {
  switch (choice.kind) {
    case "stretch":
      return `line of ${Math.round(lengthOf([choice.start.at, choice.end.at]))} mm`;
    case "round":
      return `round line of radius ${Math.round(choice.radius)} mm`;
    case "inside":
      return "all but the outline of an element";
    case "area":
      return choice.material ? `cut of ${choice.material}` : "all that is cut of an element";
    case "extension":
      return "line drawn out to another";
    case "alike": {
      const { role, element, ifc_class, made_of, layer, shorter } = choice;
      const of = [
        element && "of an element",
        ifc_class && `of every ${classWords(ifc_class)}`,
        made_of && `of ${made_of}`,
        layer && `on layer ${layer}`,
        shorter && `shorter than ${Math.round(shorter)} mm`,
      ];
      return ["all", role, "lines", ...of].filter(Boolean).join(" ");
    }
  }
}

/** What becomes of it, in words. */
export function changeWords({ hidden, role, stroke, cut }: TouchUpChange): string {
  if (hidden) return "hidden";
  const said = [
    role && `drawn as ${role}`,
    stroke.width != null && `${stroke.width.toFixed(2)} mm`,
    stroke.colour && `colour ${stroke.colour}`,
    stroke.pattern,
    cut && (cut.hatch ? `hatched ${cut.hatch}` : cut.fill ? `filled ${cut.fill}` : "not filled"),
  ].filter(Boolean);
  return said.join(", ") || "added";
}
