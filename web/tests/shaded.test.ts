import { describe, expect, it } from "vitest";
import type { Geometry } from "../src/canvas/geometry";
import { isComing, placeOf, type MadePicture } from "../src/canvas/shaded";
import type { Viewport } from "../src/api/client";

const made: MadePicture = {
  key: "k",
  window: { width: 100, height: 60, ratio: 0.01, centre: [5000, 2000], turn: 0 },
  notes: [],
};
const viewport: Geometry = {
  x: 20,
  y: 30,
  width: 100,
  height: 60,
  ratio: 0.01,
  turn: 0,
  shape: "rectangle",
  corners: [],
  centre_u: 5000,
  centre_v: 2000,
};

describe("the picture of a viewport", () => {
  it("fills the frame that it was made for", () => {
    expect(placeOf(made, viewport)).toEqual({ middle: [70, 60], width: 100, height: 60, turn: 0 });
  });

  it("stays where it is when the frame is cropped about it", () => {
    const cropped = { ...viewport, width: 50, centre_u: 2500 };
    expect(placeOf(made, cropped).middle).toEqual([70, 60]);
  });

  it("goes with what is seen when that is panned, scaled or turned before a new one is there", () => {
    expect(placeOf(made, { ...viewport, centre_u: 6000 }).middle).toEqual([60, 60]);
    expect(placeOf(made, { ...viewport, ratio: 0.02 })).toMatchObject({ width: 200, height: 120 });
    const turned = placeOf(made, { ...viewport, turn: 90, centre_u: 4000 });
    expect(turned.turn).toBe(90);
    expect(turned.middle[0]).toBeCloseTo(70);
    expect(turned.middle[1]).toBeCloseTo(70);
  });

  it("is coming while another is asked for than there is", () => {
    const row = (
      wanted: string,
      picture: MadePicture | null,
      wanted_areas = "",
      areas: string | null = null,
    ) => ({ wanted_picture: wanted, picture, wanted_areas, areas }) as unknown as Viewport;
    expect(isComing(row("", null))).toBe(false);
    expect(isComing(row("k", null))).toBe(true);
    expect(isComing(row("other", made))).toBe(true);
    expect(isComing(row("k", made))).toBe(false);
    expect(isComing(row("", null, "areas"))).toBe(true);
    expect(isComing(row("", null, "areas", "areas"))).toBe(false);
  });
});
