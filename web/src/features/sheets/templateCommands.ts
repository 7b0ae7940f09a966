/** Changes to a template: its parts, its border, and which sheets have it. Each can be undone. */
import type { DisplayList, Part, Template, TemplateSpec } from "../../api/client";
import { commit } from "../../sync/commands";
import { changing, deleting, making, newId, rows } from "../../sync/rows";
import { tenth } from "./board/Movable";
import { endsOf, laid, type Ends } from "../../canvas/templateParts";
import { useBoard } from "../../stores/board";
import { select, useSelection } from "../../stores/selection";
import { notify } from "../../stores/notices";
import { partName, partNumber } from "../../canvas/templateParts";
import { inSentence, t } from "../../words/words";

/** The parts of a template that are selected, by their numbers. */
export const chosenParts = (selected: readonly string[]) => selected.map(partNumber).filter((n) => n >= 0);

/** A template that is built in becomes one of the project's own, which all its sheets then have. Its id. */
export function copyForSheets(project: string, template: Template): string {
  const made = making("templates", {
    id: newId(),
    project,
    name: t("{name}, copy", { name: template.name }),
    spec: template.spec,
  });
  const sheets = rows("sheets", project).filter((s) => s.template === template.id);
  void commit(project, t("copy the template “{name}”", { name: template.name }), [
    made,
    ...sheets.map((s) => changing("sheets", s, { template: made.id })),
  ]);
  return made.id;
}

export function duplicateTemplate(project: string, template: Template): string {
  const made = making("templates", {
    id: newId(),
    project,
    name: t("{name}, copy", { name: template.name }),
    spec: template.spec,
  });
  void commit(project, t("duplicate the template “{name}”", { name: template.name }), [made]);
  return made.id;
}

export const deleteTemplate = (project: string, template: Template) =>
  commit(project, t("delete the template “{name}”", { name: template.name }), [
    deleting("templates", template),
  ]);

/** What a new part is like. A box that begins in the middle of the frame. */
export const NEW: readonly (readonly [
  name: string,
  make: () => Partial<Part> & { kind: Part["kind"] },
  width: number,
  height: number,
])[] = [
  [t("Line"), () => ({ kind: "line", width: 0.25 }), 60, 0],
  [t("Rectangle"), () => ({ kind: "rectangle", width: 0.25 }), 60, 30],
  [t("Text"), () => ({ kind: "text", words: t("Text"), size: 3.5 }), 60, 8],
  [t("Field"), () => ({ kind: "field", field: "title", words: t("Title"), width: 0.18 }), 60, 10],
  [t("Picture"), () => ({ kind: "image", picture: "logo" }), 30, 20],
  [t("Revisions"), () => ({ kind: "revisions", width: 0.18 }), 120, 22.5],
];

/** What a part is like where nothing else is said. */
const BLANK = {
  width: 0,
  fill: "",
  colour: "",
  words: "",
  field: "",
  size: 2.5,
  min_size: 1.8,
  lines: 1,
  align: "left",
  bold: false,
  picture: "",
} as const;

/** All that can be done to one template while it is edited. */
export function templateEdits(project: string, template: Template, display: DisplayList) {
  const now = () => rows("templates", project).find((each) => each.id === template.id) ?? template;
  const parts = () => now().spec.parts ?? [];
  const chosen = () => chosenParts(useSelection.getState().selected);
  const write = (spec: Partial<TemplateSpec>, what: string) =>
    commit(project, what, [changing("templates", now(), { spec: { ...now().spec, ...spec } })]);
  const change = (numbers: readonly number[], to: (part: Part, ends: Ends) => Part, what: string) =>
    write(
      { parts: parts().map((part, k) => (numbers.includes(k) ? to(part, endsOf(part, display)) : part)) },
      what,
    );

  return {
    write,
    rename: (name: string) =>
      commit(project, t("rename a template"), [changing("templates", now(), { name })]),
    set: (to: Partial<Part>, what: string) => change(chosen(), (part) => ({ ...part, ...to }), what),
    /** Parts come to lie elsewhere: the ends of each, by its number. */
    lay: (ends: ReadonlyMap<number, Ends>, what: string) =>
      change(
        [...ends.keys()],
        (part, old) => part && laid(part, ends.get(parts().indexOf(part)) ?? old, display),
        what,
      ),
    /** Parts keep to other sides, and stay where they are on this paper. */
    anchor: (to: Pick<Part, "across" | "up">) =>
      change(
        chosen(),
        (part, ends) => laid({ ...part, ...to }, ends, display),
        t("keep parts to other sides"),
      ),
    add(name: string) {
      const kind = NEW.find(([n]) => n === name);
      if (!kind) return;
      const [, make, width, height] = kind;
      const { frame } = display;
      const [x, y] = [
        tenth(frame.x + frame.width / 2 - width / 2),
        tenth(frame.y + frame.height / 2 - height / 2),
      ];
      const made = laid(
        { ...BLANK, ...make(), x0: 0, y0: 0, x1: 0, y1: 0, across: "right", up: "bottom" },
        [x, y, x + width, y + height],
        display,
      );
      void write({ parts: [...parts(), made] }, t("add a {name}", { name: inSentence(name) }));
      select(partName(parts().length - 1));
    },
    remove() {
      const gone = chosen();
      if (!gone.length) return;
      select(null);
      void write(
        { parts: parts().filter((_, k) => !gone.includes(k)) },
        gone.length === 1 ? t("delete a part") : t("delete {count} parts", { count: gone.length }),
      );
    },
    duplicate() {
      const copied = chosen();
      if (!copied.length) return;
      const copies = parts().flatMap((part, k) => {
        const [x0, y0, x1, y1] = endsOf(part, display);
        return copied.includes(k) ? [laid(part, [x0 + 5, y0 - 5, x1 + 5, y1 - 5], display)] : [];
      });
      const first = parts().length;
      void write({ parts: [...parts(), ...copies] }, t("duplicate parts"));
      select(copies.map((_, k) => partName(first + k)));
    },
    stack(front: boolean) {
      const moved = chosen();
      const [own, others] = [
        parts().filter((_, k) => moved.includes(k)),
        parts().filter((_, k) => !moved.includes(k)),
      ];
      void write(
        { parts: front ? [...others, ...own] : [...own, ...others] },
        front ? t("bring parts to the front") : t("send parts to the back"),
      );
      select(own.map((_, k) => partName(front ? others.length + k : k)));
    },
    nudge(dx: number, dy: number) {
      const numbers = chosen();
      // A part that keeps to both sides is nudged whole all the same: both of its figures change.
      void change(
        numbers,
        (part) => ({ ...part, x0: part.x0 + dx, x1: part.x1 + dx, y0: part.y0 + dy, y1: part.y1 + dy }),
        t("nudge parts"),
      );
    },
    chooseAll: () => select(parts().map((_, k) => partName(k))),
    leave() {
      useBoard.setState({ template: null });
      select(null);
      const users = rows("sheets", project).filter((s) => s.template === template.id);
      notify(t("The template “{name}” is on {count} sheets.", { name: now().name, count: users.length }));
    },
  };
}

export type TemplateEdits = ReturnType<typeof templateEdits>;
