/** Days and lengths as somebody prefers to read them. */
import { describe, expect, it } from "vitest";
import { exactLengthOf, lengthOf } from "../src/components/lengths";
import { dayOf, momentOf } from "../src/components/moments";

describe("a day", () => {
  it("is read from the largest to the smallest, or with the day or the month first", () => {
    expect(dayOf("2026-03-18", "iso")).toBe("2026-03-18");
    expect(dayOf("2026-03-18", "day first")).toBe("18.03.2026");
    expect(dayOf("2026-03-18", "month first")).toBe("03/18/2026");
  });
  it("has its time to the minute where that matters", () => {
    expect(momentOf("2026-03-18T14:05:59", "iso")).toBe("2026-03-18 14:05");
  });
});

describe("a length", () => {
  it("is told in metres or millimetres", () => {
    expect(lengthOf(2350, "metres")).toBe("2.35 m");
    expect(lengthOf(-150, "metres", 3)).toBe("-0.150 m");
    expect(exactLengthOf(2349.6, "metres")).toBe("2350 mm");
    expect(lengthOf(2349.6, "millimetres")).toBe("2350 mm");
  });
  it("is told in feet, inches and eighths, carried over where they are full", () => {
    expect([2349.5, 304.7, -12.7, 0].map((mm) => lengthOf(mm, "feet"))).toEqual([
      `7' 8 1/2"`,
      `1' 0"`,
      `-0' 0 1/2"`,
      `0' 0"`,
    ]);
    expect(exactLengthOf(304.8, "feet")).toBe(`1' 0"`);
  });
});
