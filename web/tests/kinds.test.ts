import { describe, expect, it } from "vitest";
import { extraLinesOf, fitting, hasContours } from "../src/features/views/kinds";

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
