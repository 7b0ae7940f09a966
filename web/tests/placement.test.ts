import { describe, expect, it } from "vitest";
import { degrees, metres, metresTyped, placeText, turnTyped } from "../src/features/model/placement";

describe("where a building stands", () => {
  it("is written in metres with three decimals, grouped, and a true minus", () => {
    expect(metres(325_000_000)).toBe("325,000.000 m");
    expect(placeText([1000, -200.4], ["E", "N"])).toBe("E 1.000 m\nN −0.200 m");
    expect(placeText([0, 0, 0], ["x", "y", "z"])).toBe("at its zero");
    expect(degrees(-20)).toBe("−20.00°");
    expect(degrees(0)).toBe("0°");
  });

  it("takes a length in metres as people type it", () => {
    expect(metresTyped(" −1,25 ")).toBe(-1250);
    expect([metresTyped(""), metresTyped("far")]).toEqual([null, null]);
  });

  it("takes an angle as people type it, and none out of bounds", () => {
    expect(turnTyped(" −20,5° ")).toBe(-20.5);
    expect([turnTyped(""), turnTyped("wide"), turnTyped("361")]).toEqual([null, null, null]);
  });
});
