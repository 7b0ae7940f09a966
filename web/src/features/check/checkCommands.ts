/** What can be done about findings: put right at once, or let stand with a reason; and what is checked. */
import {
  api,
  data,
  type CheckRules,
  type Finding,
  type Sheet,
  type Severity,
  type Waiver,
} from "../../api/client";
import { notifyError } from "../../stores/notices";
import { commit } from "../../sync/commands";
import { changing, deleting, making, newId, rows } from "../../sync/rows";
import { t } from "../../words/words";

/** What a rule can be set to. */
export type Choice = Severity | "off";

export const letStand = (project: string, finding: Finding, reason: string) =>
  commit(project, t("let a finding stand"), [
    making("waivers", {
      id: newId(),
      project,
      finding: finding.key,
      words: finding.words,
      reason,
      by: "",
      created: new Date().toISOString(),
    }),
  ]);

export const raiseAgain = (project: string, waiver: Waiver) =>
  commit(project, t("raise a finding again"), [deleting("waivers", waiver)]);

export function chooseRule(project: string, rules: CheckRules, key: string, choice: Choice | null) {
  const { [key]: _, ...others } = rules.choices;
  const choices = choice ? { ...others, [key]: choice } : others;
  return commit(project, t("change what is checked"), [changing("check_rules", rules, { choices })]);
}

/** Set a figure that a rule goes by; null for what it is by itself. */
export function setLimit(project: string, rules: CheckRules, key: string, value: number | null) {
  const { [key]: _, ...others } = rules.limits;
  const limits = value === null ? others : { ...others, [key]: value };
  return commit(project, t("limits of a rule"), [changing("check_rules", rules, { limits })]);
}

/** Put a finding right, where that can be done at once. */
export async function putRight(project: string, finding: Finding, sheet: Sheet | undefined) {
  if (finding.fix === "restore" && sheet) {
    const { [finding.subject]: _, ...overrides } = sheet.overrides;
    await commit(project, t("restore a field of {number}", { number: sheet.number }), [
      changing("sheets", sheet, { overrides }),
    ]);
  } else if (finding.fix === "release") {
    const view = rows("views", project).find((v) => v.id === finding.view);
    if (view)
      await commit(project, t("release {name}", { name: view.name }), [
        changing("views", view, { held: false }),
      ]);
  } else if (finding.fix === "draw") {
    try {
      await data(api.POST("/api/views/{id}/draw/", { params: { path: { id: finding.view } } }));
    } catch (error) {
      notifyError(error);
    }
  }
}

export const FIXES: Record<Finding["fix"], string> = {
  "": "",
  draw: t("Bring up to date"),
  release: t("Release"),
  restore: t("Restore"),
};
