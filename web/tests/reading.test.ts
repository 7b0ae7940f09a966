/** Days and lengths as somebody prefers to read them. */
import { afterEach, describe, expect, it, vi } from "vitest";

vi.mock("../src/stores/preferences", () => {
  const state = { dates: "iso", lengths: "metres", register: "pictures" };
  return { usePreferences: { getState: () => state } };
});

import { exactLengthOf, lengthOf } from "../src/components/lengths";
import { dayOf, momentOf } from "../src/components/moments";
import { usePreferences } from "../src/stores/preferences";

const given = usePreferences.getState() as { dates: string; lengths: string };
afterEach(() => void Object.assign(given, { dates: "iso", lengths: "metres" }));

describe("a day", () => {
  it("is read from the largest to the smallest, or with the day or the month first", () => {
    expect(dayOf("2026-03-18")).toBe("2026-03-18");
    given.dates = "day first";
    expect(dayOf("2026-03-18")).toBe("18.03.2026");
    given.dates = "month first";
    expect(dayOf("2026-03-18")).toBe("03/18/2026");
  });
  it("has its time to the minute where that matters", () => {
    expect(momentOf("2026-03-18T14:05:59")).toBe("2026-03-18 14:05");
  });
});

describe("a length", () => {
  it("is told in metres or millimetres", () => {
    expect([lengthOf(2350), lengthOf(-150, 3), exactLengthOf(2349.6)]).toEqual([
      "2.35 m",
      "-0.150 m",
      "2350 mm",
    ]);
    given.lengths = "millimetres";
    expect(lengthOf(2349.6)).toBe("2350 mm");
  });
  it("is told in feet, inches and eighths, carried over where they are full", () => {
    given.lengths = "feet";
    expect([lengthOf(2349.5), exactLengthOf(304.8), lengthOf(304.7), lengthOf(-12.7), lengthOf(0)]).toEqual([
      `7' 8 1/2"`,
      `1' 0"`,
      `1' 0"`,
      `-0' 0 1/2"`,
      `0' 0"`,
    ]);
  });
});
