/** How a building is looked at in 3D, in the figures of a view. */
import { Box3, Vector3 } from "three";
import { describe, expect, it } from "vitest";
import { axonometricSight, bearingOf, halfHeight, perspectiveSight } from "../src/features/model/sights";

describe("a look at the building", () => {
  it("from the south-east and above has that bearing and altitude", () => {
    expect(axonometricSight(new Vector3(1, -1, Math.SQRT2))).toEqual({ bearing: 135, altitude: 45 });
  });
  it("from straight above stays a look from somewhere", () => {
    expect(axonometricSight(new Vector3(0, -0.001, 1))).toMatchObject({ altitude: 89 });
  });
  it("of an eye has its places in the model, and a field of view that goes across", () => {
    const sight = perspectiveSight(new Vector3(10, 20, 1600), new Vector3(0, 0, 0), [1000, 0, 5], 2);
    expect(sight).toEqual({ eye: [1010, 20, 1605], target: [1000, 0, 5], angle: 72 });
  });
});

describe("a face", () => {
  it("that stands upright is looked at from its bearing, and one that leans from none", () => {
    expect(bearingOf(new Vector3(-1, 0, 0))).toBe(270);
    expect(bearingOf(new Vector3(0, 0.7, 0.7))).toBeNull();
    expect(bearingOf(undefined)).toBeNull();
  });
});

describe("a picture", () => {
  it("holds all of a box, whichever of its sides is longer in it", () => {
    const box = new Box3(new Vector3(0, 0, 0), new Vector3(8000, 2000, 3000));
    const middle = new Vector3(4000, 1000, 1500);
    const south = new Vector3(0, -1, 0);
    expect(halfHeight(box, middle, 1, south)).toBe(4000);
    expect(halfHeight(box, middle, 4, south)).toBe(1500);
  });
});
