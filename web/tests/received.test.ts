/** Units and scales of drawings from others. */
import { describe, expect, it } from "vitest";
import type { ReceivedFile } from "../src/api/client";
import { correctedUnit, guessedUnit, scaleOf, specOf, withFile } from "../src/features/views/received";

const file = (facts: Partial<ReceivedFile["facts"]>, name = "a.dxf"): ReceivedFile =>
  ({
    file: "f",
    name,
    facts: {
      form: "dxf",
      mm: 1000,
      paper: false,
      low: [3, 4],
      size: [30, 20],
      hidden: ["Old"],
      pages: 1,
      ...facts,
    },
  }) as unknown as ReceivedFile;

describe("a drawing from others", () => {
  it("is placed as its file says, without the layers that are off in it", () => {
    expect(specOf(file({}))).toMatchObject({ mm: 1000, origin: [3, 4], shown: { without_layers: ["Old"] } });
  });

  it("has a unit that makes a building or a site of it where its file says none", () => {
    expect([guessedUnit([12_000, 9000]), guessedUnit([1200, 900]), guessedUnit([45, 30])]).toEqual([
      1, 10, 1000,
    ]);
    expect(specOf(file({ mm: null as unknown as undefined })).mm).toBe(1000);
  });

  it("on paper has a scale, and is right once two points are as far apart as they truly are", () => {
    const page = file({ paper: true, mm: 25.4 / 72 });
    const spec = specOf(page);
    expect(scaleOf(spec, page)).toBeCloseTo(100);
    const mm = correctedUnit(spec.mm ?? 1, 2500, 5000);
    expect(scaleOf({ ...spec, mm }, page)).toBeCloseTo(200);
  });

  it("keeps unit, origin and layers when a newer file takes its place", () => {
    const spec = { ...specOf(file({})), mm: 304.8, page: 3 };
    expect(withFile(spec, file({ low: [0, 0], pages: 2 }, "b.dxf"))).toMatchObject({
      mm: 304.8,
      origin: [3, 4],
      name: "b.dxf",
      page: 2,
    });
  });
});
