import { describe, expect, it } from "vitest";
import { initialsOf, namesOf } from "../src/stores/present";
import { staleBy } from "../src/sync/topics";

describe("what a change elsewhere makes stale", () => {
  it("is the list itself, and what is drawn or found from it", () => {
    const stale = staleBy(["viewports"]);
    expect(stale).toContain("viewports");
    expect(stale).toContain("display");
    expect(stale).toContain("checks");
    expect(stale).not.toContain("sheets");
  });
  it("is the list alone where nothing depends on it", () => {
    expect([...staleBy(["recipients"])]).toEqual(["recipients"]);
  });
  it("is everything that any of several changes touches", () => {
    expect(staleBy(["waivers", "pen_tables"])).toEqual(
      new Set(["waivers", "checks", "pen_tables", "display"]),
    );
  });
});

describe("people", () => {
  const at = (user: string, tab: string) => ({ user, tab, station: "sheets", subject: "", holding: [] });
  it("are named once, however many pages they have open", () => {
    expect(namesOf([at("mira", "1"), at("ines", "2"), at("mira", "3")])).toEqual(["ines", "mira"]);
  });
  it("have initials from one name or two", () => {
    expect([initialsOf("ines"), initialsOf("Ines Morgan"), initialsOf("j.k"), initialsOf("")]).toEqual([
      "IN",
      "IM",
      "JK",
      "?",
    ]);
  });
});
