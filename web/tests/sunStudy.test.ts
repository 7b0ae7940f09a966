import { describe, expect, it } from "vitest";
import type { Viewport } from "../src/api/client";
import { hoursOf, studyOf } from "../src/features/sheets/sunStudy";

describe("hours that are typed", () => {
  it("are read with commas, blanks and minutes", () => {
    expect(hoursOf("9, 12:30 15")).toEqual([9, 12.5, 15]);
  });

  it("are refused where one is none, or there are none or too many", () => {
    for (const wrong of ["", "noon", "9, 25", "9:75", "1 2 3 4 5 6 7 8 9 10 11 12 13"])
      expect(hoursOf(wrong)).toBeNull();
  });
});

describe("a sun study", () => {
  const viewport = {
    x: 20,
    y: 200,
    width: 100,
    height: 60,
    appearance: {
      show: "lines",
      light: { source: "convention", month: 6, day: 21, hour: 15, latitude: 50, soft: true },
    },
  } as unknown as Viewport;
  const sun = { month: 3, day: 21, latitude: 57 };

  it("begins with the viewport where it is, and goes on to the right", () => {
    const made = studyOf(viewport, sun, [9, 12], 420);
    expect(made.map((to) => [to.x, to.y])).toEqual([
      [20, 200],
      [132, 200],
    ]);
    expect(made.map((to) => to.appearance?.light)).toEqual([
      { source: "sun", month: 3, day: 21, hour: 9, latitude: 57, soft: true },
      { source: "sun", month: 3, day: 21, hour: 12, latitude: 57, soft: true },
    ]);
  });

  it("goes on below where the paper ends", () => {
    const made = studyOf(viewport, sun, [8, 10, 12, 14], 297);
    expect(made.map((to) => [to.x, to.y])).toEqual([
      [20, 200],
      [132, 200],
      [20, 114],
      [132, 114],
    ]);
  });

  it("shows lines over light where there were lines only, and else what was shown", () => {
    expect(studyOf(viewport, sun, [9], 420)[0]?.appearance?.show).toBe("shaded");
    const flat = { ...viewport, appearance: { ...viewport.appearance, show: "colours" as const } };
    expect(studyOf(flat, sun, [9], 420)[0]?.appearance?.show).toBe("colours");
  });
});
