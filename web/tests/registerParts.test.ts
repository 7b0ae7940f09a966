/** The register in parts: series, what is looked for, and where a sheet comes to lie. */
import { describe, expect, it } from "vitest";
import type { Sheet } from "../src/api/client";
import { chosenBy, isSought, placeAmong, runsOf, seriesOf } from "../src/features/sheets/registerParts";

const sheet = (number: string, title = "") => ({ id: number, number, title }) as Sheet;
const SET = ["A-01", "A-02", "S-01", "S-02", "A-03"].map((number) => sheet(number));

describe("series", () => {
  it("are told by the letters that numbers begin with", () => {
    expect(["A-01", "sk 12", "101", "É-3", ""].map(seriesOf)).toEqual(["A", "SK", "", "É", ""]);
  });

  it("are runs of sheets in the order of the register", () => {
    expect(runsOf(SET).map((run) => [run.series, run.sheets.length])).toEqual([
      ["A", 2],
      ["S", 2],
      ["A", 1],
    ]);
  });
});

it("a sheet is found by words of its number and its title, in any order and case", () => {
  const roof = sheet("A-07", "Roof plan");
  expect(["roof", "PLAN a-07", ""].every((words) => isSought(roof, words))).toBe(true);
  expect(isSought(roof, "roof section")).toBe(false);
});

it("a sheet that is dropped comes to lie before the one below it, also where some are not shown", () => {
  expect(placeAmong(SET, "A-01", "S-02")).toBe(2);
  expect(placeAmong(SET, "A-03", "A-01")).toBe(0);
  expect(placeAmong(SET, "A-01", undefined)).toBe(4);
  expect(placeAmong(SET, "S-01", "S-01")).toBe(2);
});

describe("several sheets are chosen", () => {
  const shown = ["a", "b", "c", "d"];
  const keys = { shiftKey: false, ctrlKey: false, metaKey: false };
  it("by a range, in either direction", () => {
    const shift = { ...keys, shiftKey: true };
    expect([...chosenBy(shift, "c", "a", shown, new Set())]).toEqual(["a", "b", "c"]);
    expect([...chosenBy(shift, "b", "d", shown, new Set())]).toEqual(["b", "c", "d"]);
  });
  it("one by one, beginning with the one that is open", () => {
    const ctrl = { ...keys, ctrlKey: true };
    const two = chosenBy(ctrl, "c", "a", shown, new Set());
    expect([...two]).toEqual(["a", "c"]);
    expect([...chosenBy(ctrl, "c", "c", shown, two)]).toEqual(["a"]);
  });
  it("until one is opened", () => {
    expect(chosenBy(keys, "b", "a", shown, new Set(["a", "c"])).size).toBe(0);
  });
});
