import { describe, expect, it } from "vitest";
import type { Appearance, View, Viewport } from "../src/api/client";
import { LINES_ONLY, appearanceOf, scopeOf } from "../src/features/sheets/appearance";
import { howManyFit, hoursOf, studyOf } from "../src/features/sheets/sunStudy";

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
    view: "v",
    appearance: null,
  } as unknown as Viewport;
  const lines = { ...LINES_ONLY, light: { ...LINES_ONLY.light, soft: true } };
  const sun = { month: 3, day: 21, latitude: 57 };

  it("begins with the viewport where it is, and goes on to the right", () => {
    const made = studyOf(viewport, lines, sun, [9, 12], 420);
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
    const made = studyOf(viewport, lines, sun, [8, 10, 12, 14], 297);
    expect(made.map((to) => [to.x, to.y])).toEqual([
      [20, 200],
      [132, 200],
      [20, 114],
      [132, 114],
    ]);
  });

  it("says how many lie on the paper", () => {
    const made = studyOf({ ...viewport, y: 50 }, lines, sun, [8, 10, 12, 14], 297);
    expect(howManyFit(made)).toBe(2);
    expect(howManyFit(studyOf(viewport, lines, sun, [8, 10, 12, 14], 297))).toBe(4);
  });

  it("shows lines over light where there were lines only, and else what was shown", () => {
    expect(studyOf(viewport, lines, sun, [9], 420)[0]?.appearance?.show).toBe("shaded");
    const flat = { ...lines, show: "colours" as const };
    expect(studyOf(viewport, flat, sun, [9], 420)[0]?.appearance?.show).toBe("colours");
  });
});

describe("an appearance", () => {
  const shaded = { ...LINES_ONLY, show: "shaded" as const };
  const of = (own: Appearance | null) => ({ appearance: own }) as unknown as Viewport;
  const view = (appearance: Appearance) => ({ appearance }) as unknown as View;

  it("is the viewport's own before its view's", () => {
    expect(appearanceOf(of(null), view(shaded)).show).toBe("shaded");
    expect(appearanceOf(of(LINES_ONLY), view(shaded)).show).toBe("lines");
    expect(appearanceOf(of(null), undefined)).toBe(LINES_ONLY);
  });

  it("is chosen for the view where the viewport shows what that says", () => {
    expect(scopeOf(of(null), view(shaded))).toBe("view");
    expect(scopeOf(of(shaded), view(shaded))).toBe("viewport");
    expect(scopeOf(of(null), view(LINES_ONLY))).toBe("viewport");
  });
});
