/** What one's role in a project allows, known before the server is asked. It decides all the same. */
import type { Project } from "../api/client";
import { queryClient } from "../api/queryClient";
import type { Step } from "./rows";
import { t } from "../words/words";

export type Ability = "look" | "check" | "draw" | "sign" | "own";
type Roles = Pick<Project, "name" | "owner" | "role" | "roles">;

const ABILITIES: Record<string, readonly Ability[]> = {
  owner: ["look", "check", "draw", "sign", "own"],
  drafter: ["look", "check", "draw"],
  checker: ["look", "check", "sign"],
  reader: ["look"],
};
const WORDS: Record<Ability, string> = {
  look: t("look at it"),
  check: t("check it"),
  draw: t("change it"),
  sign: t("sign its sheets as checked or approved"),
  own: t("share or delete it"),
};
/** What says of a sheet who has checked and approved it. */
const SIGNED = ["checker", "checked_on", "approver", "approved_on"];
/** Rows that those who check change too. */
const CHECKED = ["waivers", "comments"];

export const may = ({ role }: Pick<Roles, "role">, ability: Ability): boolean =>
  (ABILITIES[role] ?? []).includes(ability);

/** The names of those who may do something, the owner first. */
export const whoMay = ({ owner, roles }: Roles, ability: Ability): string[] => [
  owner,
  ...Object.keys(roles)
    .filter((name) => may({ role: roles[name] ?? "" }, ability))
    .toSorted(),
];

/** Why somebody may not do something, and who may. */
export const refusal = (project: Roles, ability: Ability): string =>
  t("You are a {role} of “{name}” and cannot {ability}. ", {
    role: project.role,
    name: project.name,
    ability: WORDS[ability],
  }) + t("{ability} can.", { ability: whoMay(project, ability).join(", ") });

/** What some steps need. */
export function needed(steps: readonly Step[]): Ability[] {
  const needs = steps.flatMap(({ rows, before, after }): Ability[] => {
    if (CHECKED.includes(rows)) return ["check"];
    if (rows !== "sheets" || !before || !after) return ["draw"];
    const names = Object.keys(after);
    return [
      ...(names.some((name) => SIGNED.includes(name)) ? (["sign"] as const) : []),
      ...(names.some((name) => !SIGNED.includes(name)) ? (["draw"] as const) : []),
    ];
  });
  return [...new Set(needs)];
}

/** Why some steps may not be made in a project; null where they may, or the role is not known here. */
export function refused(project: string, steps: readonly Step[]): string | null {
  const known = queryClient.getQueryData<Project>(["projects", project]);
  const missing = known && needed(steps).find((ability) => !may(known, ability));
  return known && missing ? refusal(known, missing) : null;
}
