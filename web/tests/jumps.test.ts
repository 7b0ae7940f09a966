/** What is offered for what is typed: by name, the nearest first. */
import { expect, it } from "vitest";
import { foundAmong, type Jump } from "../src/components/jumps";

const jump = (kind: string, name: string): Jump => ({ kind, name, go: () => undefined });
const ALL = [
  jump("Sheet", "A-01 Ground floor"),
  jump("Sheet", "A-10 Upper floor"),
  jump("View", "Plan, Ground floor"),
  jump("View", "Section A–A"),
  jump("Command", "Plot sheet"),
];
const names = (typed: string) => foundAmong(ALL, typed).map((found) => found.name);

it("what begins with what is typed comes first", () => {
  expect(names("plo")).toEqual(["Plot sheet"]);
  expect(names("ground")).toEqual(["A-01 Ground floor", "Plan, Ground floor"]);
  expect(names("plan gr")).toEqual(["Plan, Ground floor"]);
  expect(names("p")[0]).toBe("Plan, Ground floor");
});

it("the kind can be typed as well, and words in any order", () => {
  expect(names("view section")).toEqual(["Section A–A"]);
  expect(names("floor upper")).toEqual(["A-10 Upper floor"]);
});

it("nothing typed offers all, and what nothing has offers nothing", () => {
  expect(names("  ")).toHaveLength(ALL.length);
  expect(names("roof")).toEqual([]);
});
