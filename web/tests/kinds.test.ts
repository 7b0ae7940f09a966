import { describe, expect, it } from "vitest";
import {
  extraLinesOf,
  fitting,
  hasContours,
  shownByAll,
  withNames,
  type Spec,
} from "../src/features/views/kinds";

describe("lines that a view has on demand", () => {
  it("are those of its kind", () => {
    expect(extraLinesOf("plan").map(([key]) => key)).toEqual([
      "overhead",
      "outline_above",
      "beams_above",
      "below",
    ]);
    expect(extraLinesOf("elevation").map(([key]) => key)).toEqual(["opening_windows"]);
    expect(extraLinesOf("perspective")).toEqual([]);
    expect([hasContours("roof"), hasContours("elevation")]).toEqual([true, false]);
  });

  it("that belong to plans are left out of settings that other views are given", () => {
    const settings = { overhead: true, below: true, hidden: true };
    expect(fitting("plan", settings)).toBe(settings);
    expect(fitting("section", settings)).toMatchObject({ overhead: false, below: false, hidden: true });
  });
});

it("of several views what all leave out is shown, and each keeps what it alone leaves out", () => {
  const roof: Spec = { kind: "roof", shown: { without_layers: ["Deck", "Furniture"] } };
  const plan: Spec = { kind: "plan", storey: "Ground", shown: { without_layers: ["Furniture", "Stairs"] } };
  const before = shownByAll([roof.shown ?? {}, plan.shown ?? {}]).without_layers ?? [];
  expect(before).toEqual(["Furniture"]);
  const hidden = (spec: Spec, now: string[]) =>
    withNames(spec, "without_layers", before, now).shown?.without_layers;
  expect(hidden(roof, [])).toEqual(["Deck"]);
  expect(hidden(plan, ["Furniture", "Roof"])).toEqual(["Furniture", "Roof", "Stairs"]);
});
