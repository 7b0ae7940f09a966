/** What can be compared, in the order in which it is looked for. */
import { expect, it } from "vitest";
import type { DayState, Issue, Sheet } from "../src/api/client";
import { statesOf } from "../src/features/issue/comparedStates";

const sheet = (id: string, number: string) => ({ id, number }) as Sheet;
const issue = (name: string, date: string, sheets: [id: string, of: string | null, number: string][]) =>
  ({
    name,
    date,
    sheets: sheets.map(([id, of, number]) => ({ id, sheet: of, number, revision: "P01" })),
  }) as unknown as Issue;

it("lists each sheet now, then its issues from the newest, then earlier days; deleted sheets come last", () => {
  const issues = [
    issue("First", "2026-03-02", [
      ["i1", "a", "A-01"],
      ["gone", null, "A-09"],
    ]),
    issue("Second", "2026-03-16", [["i2", "a", "A-01"]]),
  ];
  const days = [{ id: 7, sheet: "a", day: "2026-03-10", number: "A-01" } as unknown as DayState];
  const states = statesOf(issues, days, [sheet("a", "A-01"), sheet("b", "A-02")]);
  expect(states.map((s) => [s.key, s.kind])).toEqual([
    ["a", "sheet"],
    ["i2", "issued"],
    ["i1", "issued"],
    ["7", "day"],
    ["b", "sheet"],
    ["gone", "issued"],
  ]);
  expect(states[1]?.name).toBe("A-01 P01 of 2026-03-16, Second");
});
