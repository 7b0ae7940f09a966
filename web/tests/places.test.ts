/** Which plan new views are drawn on first, and points that are typed. */
import { describe, expect, it } from "vitest";
import type { View } from "../src/api/client";
import { groundPlan, pointFrom, pointText } from "../src/features/views/places";

const plan = (name: string, z: number) => ({ name, axes: { origin: [0, 0, z] } }) as unknown as View;

describe("the plan that views are drawn on", () => {
  it("is the lowest above ground, and not that of the foundations", () => {
    const plans = [plan("Foundations", -1200), plan("Upper", 4100), plan("Ground", 1200)];
    expect(groundPlan(plans)?.name).toBe("Ground");
  });

  it("is the highest where all lie below ground, and none where there is none", () => {
    expect(groundPlan([plan("Lower cellar", -5000), plan("Cellar", -1500)])?.name).toBe("Cellar");
    expect(groundPlan([])).toBeUndefined();
  });
});

describe("a point that is typed", () => {
  it("has three figures, apart by commas or blanks", () => {
    expect(pointFrom("1200, -450.5, 1600")).toEqual([1200, -450.5, 1600]);
    expect(pointFrom("1200,-450,1600")).toEqual([1200, -450, 1600]);
    expect(pointFrom(" 0 0 0 ")).toEqual([0, 0, 0]);
  });

  it("is none with more, fewer, or words", () => {
    expect(["1, 2", "1, 2, 3, 4", "here", ""].map(pointFrom)).toEqual([null, null, null, null]);
  });

  it("reads as it is typed", () => {
    expect(pointFrom(pointText([1200.4, -450, 1600]))).toEqual([1200, -450, 1600]);
  });
});
