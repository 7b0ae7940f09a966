/** What is clicked in a drawing as it is remembered, what is like it, and what touch-ups are called. */
import type { TouchUpChange, TouchUpChoice } from "../../../api/client";
import type { Point } from "../../../canvas/geometry";
import type { Picked } from "../../../canvas/picking";
import { classWords } from "../../../components/classWords";
import { roleWord } from "../../../components/lineRoles";
import { lengthOf } from "../../../canvas/patterns";
import { t } from "../../../words/words";

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

/** What can be chosen beside what was clicked, because it is like it. */
export function likes(picked: Picked): [name: string, choice: TouchUpChoice][] {
  const { element, layer, ifcClass, madeOf, material } = picked;
  const role = picked.role as NonNullable<Alike["role"]>;
  const own = classWords(ifcClass) || t("element");
  if (material !== null)
    return [[t("All that is cut of this {own}", { own }), { kind: "area", element, material: "" }]];
  const length = lengthOf(picked.points);
  return [
    [t("All lines of this {own}", { own }), alike({ element })],
    [t("All {role} lines of this {own}", { role: roleWord(role), own }), alike({ element, role })],
    [t("This {own} but its outline", { own }), { kind: "inside", element }],
    ...(ifcClass
      ? ([
          [t("All lines of every {own}", { own }), alike({ ifc_class: ifcClass })],
          [
            t("All {role} lines of every {own}", { role: roleWord(role), own }),
            alike({ ifc_class: ifcClass, role }),
          ],
        ] as [string, TouchUpChoice][])
      : []),
    ...(madeOf
      ? ([[t("All lines of {madeOf}", { madeOf }), alike({ made_of: madeOf })]] as [string, TouchUpChoice][])
      : []),
    ...(layer
      ? ([[t("All lines on layer {layer}", { layer }), alike({ layer })]] as [string, TouchUpChoice][])
      : []),
    [t("All {role} lines", { role: roleWord(role) }), alike({ role })],
    [
      t("All lines no longer than this ({value} mm)", { value: Math.round(length) }),
      alike({ shorter: Math.ceil(length) + 1 }),
    ],
  ];
}

/** What a touch-up chooses, in words. */
export function choiceWords(choice: TouchUpChoice): string {
  switch (choice.kind) {
    case "stretch":
      return t("line of {end} mm", { end: Math.round(lengthOf([choice.start.at, choice.end.at])) });
    case "round":
      return t("round line of radius {radius} mm", { radius: Math.round(choice.radius) });
    case "inside":
      return t("all but the outline of an element");
    case "area":
      return choice.material
        ? t("cut of {material}", { material: choice.material })
        : t("all that is cut of an element");
    case "extension":
      return t("line drawn out to another");
    case "alike": {
      const { role, element, ifc_class, made_of, layer, shorter } = choice;
      const of = [
        element && t("of an element"),
        ifc_class && t("of every {ifcClass}", { ifcClass: classWords(ifc_class) }),
        made_of && t("of {madeOf}", { madeOf: made_of }),
        layer && t("on layer {layer}", { layer }),
        shorter && t("shorter than {shorter} mm", { shorter: Math.round(shorter) }),
      ];
      const what = role ? t("all {role} lines", { role: roleWord(role) }) : t("all lines");
      return [what, ...of].filter(Boolean).join(" ");
    }
  }
}

/** What becomes of it, in words. */
export function changeWords({ hidden, role, stroke, cut }: TouchUpChange): string {
  if (hidden) return "hidden";
  const said = [
    role && t("drawn as {role}", { role: roleWord(role) }),
    stroke.width != null && t("{width} mm", { width: stroke.width.toFixed(2) }),
    stroke.colour && t("colour {colour}", { colour: stroke.colour }),
    stroke.pattern,
    cut &&
      (cut.hatch
        ? t("hatched {hatch}", { hatch: cut.hatch })
        : cut.fill
          ? t("filled {fill}", { fill: cut.fill })
          : t("not filled")),
  ].filter(Boolean);
  return said.join(", ") || "added";
}
