/** What a click on the building measures from: corners before edges, edges before faces. */
import { describe, expect, it } from "vitest";
import { measuredFrom, type Place } from "../src/features/model/measuring";
import { joined, largestFirst, sidesOf, type Solid, type SolidElement } from "../src/features/model/solid";

/** A beam along x from 0 to 1000 with one edge, and a bolt; looked at from above at a pixel for each 10 mm. */
const solid = {
  places: new Float32Array([0, 0, 0, 1000, 0, 0, 500, 300, 0, 510, 310, 0]),
  edges: new Uint32Array([0, 1, 2, 3]),
  elements: [
    { points: [0, 2], edges: [0, 1] },
    { points: [2, 4], edges: [1, 2] },
  ],
} as unknown as Solid;
const from = (x: number, y: number) => (place: Place) => Math.hypot(place[0] - x, place[1] - y) / 10;

describe("a click", () => {
  it("near a corner takes the corner", () => {
    expect(measuredFrom(solid, 0, [60, 40, 0], from(60, 40))).toEqual([0, 0, 0]);
  });

  it("near an edge takes the place on it that is nearest to what was hit", () => {
    expect(measuredFrom(solid, 0, [400, 90, 0], from(400, 90))).toEqual([400, 0, 0]);
  });

  it("away from both takes what was hit", () => {
    expect(measuredFrom(solid, 0, [400, 200, 0], from(400, 200))).toEqual([400, 200, 0]);
  });

  it("takes the corner of the element that was hit, and no other's", () => {
    expect(measuredFrom(solid, 1, [500, 290, 0], from(500, 290))).toEqual([500, 300, 0]);
  });
});

describe("elements", () => {
  it("are drawn from the largest on", () => {
    expect(largestFirst(solid)).toEqual([0, 1]);
  });

  it("have the sides of their boxes", () => {
    const [beam, bolt] = solid.elements as [SolidElement, SolidElement];
    expect([sidesOf(solid, beam), sidesOf(solid, bolt)]).toEqual([
      [1000, 0, 0],
      [10, 10, 0],
    ]);
  });

  it("give their indices one after the other", () => {
    expect([...joined([new Uint32Array([3, 4]), new Uint32Array([9])])]).toEqual([3, 4, 9]);
  });
});
