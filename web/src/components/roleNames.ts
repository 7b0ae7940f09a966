/** What people are called in a project, and what they do there. */
export const ROLE_NAMES: Record<string, string> = {
  owner: "Owner",
  drafter: "Drafter",
  checker: "Checker",
  reader: "Reader",
};

/** The roles that an owner gives, with what each may do. */
export const GIVEN_ROLES = [
  ["drafter", "Drafter: changes and issues it"],
  ["checker", "Checker: checks and signs"],
  ["reader", "Reader: looks and plots"],
] as const;
