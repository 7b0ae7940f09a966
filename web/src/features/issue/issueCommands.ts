/** Raising revisions, recipients, and ordering an issue. */
import {
  api,
  data,
  type Annotation,
  type CloudSpec,
  type Difference,
  type Recipient,
  type RecipientSpec,
  type Revision,
  type Sheet,
  type Viewport,
} from "../../api/client";
import { geometryOf, inView, type Point } from "../../canvas/geometry";
import { commit } from "../../sync/commands";
import { afterWrites, changing, deleting, making, newId, rows } from "../../sync/rows";
import { t } from "../../words/words";

/** Today, as dates are written: year, month, day. */
export const today = () => new Date().toLocaleDateString("sv");

const NEW: RecipientSpec = {
  name: "",
  organisation: "",
  address: "",
  forms: ["pdf"],
  one_file: true,
  file_names: "{number}_{revision}_{title}",
  colours: "",
  onto: "",
  fills: true,
  annotation: true,
  layers_off: [],
  delivery: "folder",
  days: 30,
};

export function addRecipient(project: string, name: string): string {
  const position = Math.max(-1, ...rows("recipients", project).map((r) => r.position)) + 1;
  const spec = { ...NEW, name };
  const made = making("recipients", { id: newId(), project, position, spec, plot_settings: null });
  void commit(project, t("add the recipient “{name}”", { name }), [made]);
  return made.id;
}

export const changeRecipient = (recipient: Recipient, to: Partial<RecipientSpec>, what: string) =>
  commit(recipient.project, t("{what} of {name}", { what, name: recipient.spec.name }), [
    changing("recipients", recipient, { spec: { ...recipient.spec, ...to } }),
  ]);

export const plotFor = (recipient: Recipient, plot_settings: string | null) =>
  commit(recipient.project, t("plot settings of {name}", { name: recipient.spec.name }), [
    changing("recipients", recipient, { plot_settings }),
  ]);

export const removeRecipient = (recipient: Recipient) =>
  commit(recipient.project, t("delete the recipient “{name}”", { name: recipient.spec.name }), [
    deleting("recipients", recipient),
  ]);

/** Clouds of a sheet that go with its next revision. */
const passing = (project: string, sheet: string) =>
  rows("annotations", project).filter(
    (p): p is Annotation & { spec: CloudSpec } =>
      p.sheet === sheet && p.spec.kind === "cloud" && !p.spec.kept,
  );

/** A further revision of each of some sheets, in one step; clouds about the last one go with it. */
export function raise(
  project: string,
  raised: readonly { sheet: Sheet; revision: string }[],
  about: Pick<Revision, "date" | "description" | "initials">,
) {
  const what =
    raised.length === 1
      ? t("revision {revision} of {number}", {
          revision: raised[0]?.revision,
          number: raised[0]?.sheet.number,
        })
      : "";
  return commit(
    project,
    what || t("revisions of {count} sheets", { count: raised.length }),
    raised.flatMap(({ sheet, revision }) => [
      changing("sheets", sheet, { revisions: [...sheet.revisions, { revision, ...about }] }),
      ...passing(project, sheet.id).map((p) => deleting("annotations", p)),
    ]),
  );
}

/** How far a cloud keeps from what it is about, paper mm. */
const ABOUT = 3;

/** Clouds about what differs on a sheet, through the viewport where it is seen in one; in one step. */
export function cloudsAbout(
  project: string,
  sheet: Sheet,
  viewports: readonly Viewport[],
  differences: readonly Difference[],
) {
  const revision = sheet.revisions.at(-1)?.revision ?? "";
  const position = Math.max(-1, ...rows("annotations", project).map((p) => p.position)) + 1;
  const steps = clouded(differences).map(({ box, viewport }, k) => {
    const seen = viewports.find((v) => v.id === viewport && v.sheet === sheet.id);
    const corners: Point[] = [
      [box.x - ABOUT, box.y - ABOUT],
      [box.x + box.width + ABOUT, box.y + box.height + ABOUT],
    ];
    const [first, last] = corners.map((place) => ({
      at: seen ? [...inView(geometryOf(seen), place)] : [...place],
      element: "",
      ends: [],
      share: 0,
    }));
    const spec = { kind: "cloud", first, last, revision, kept: false } as unknown as CloudSpec;
    const home = { view: null, sheet: sheet.id, viewport: seen?.id ?? null };
    return making("annotations", { id: newId(), project, ...home, position: position + k, spec });
  });
  return commit(project, t("clouds about what has changed on {number}", { number: sheet.number }), steps);
}

type Placed = Difference & { box: NonNullable<Difference["box"]> };

/** What a cloud is drawn about: not what is said by the title block, and not what only moved. */
export const clouded = (differences: readonly Difference[]): Placed[] =>
  differences.filter(
    (d): d is Placed =>
      Boolean(d.box) && !["revision", "field", "moved", "pens", "paper", "removed"].includes(d.kind),
  );

export const orderIssue = (body: {
  project: string;
  name: string;
  purpose: string;
  date: string;
  reason: string;
  sheets: string[];
  recipients: string[];
}) => afterWrites(() => data(api.POST("/api/issues/", { body })));
