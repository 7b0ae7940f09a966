/** The guide: its sections, what is found in it, and that it speaks of what there is. */
import { describe, expect, it } from "vitest";
import guide from "../../docs/guide.md?raw";
import { foundIn, sectionsOf } from "../src/features/guide/sections";

const SECTIONS = sectionsOf(guide);

describe("the guide", () => {
  it("has a chapter for each station, after the first steps", () => {
    const chapters = [...new Set(SECTIONS.map((s) => s.chapter))];
    expect(chapters[0]).toBe("First steps");
    for (const station of ["Model", "Views", "Sheets", "Check", "Issue"])
      expect(chapters).toContain(`The ${station} station`);
  });

  it("says something under each heading", () => {
    expect(SECTIONS.every((s) => s.text.length > 40)).toBe(true);
    expect(guide.match(/^##? /gm)?.length).toBeGreaterThanOrEqual(SECTIONS.length);
  });

  it("is searched by words, titles first", () => {
    expect(foundIn(SECTIONS, "hold view")[0]?.title).toBe("Hold a view");
    expect(foundIn(SECTIONS, "bearer token").map((s) => s.title)).toEqual(["Your account"]);
    expect(foundIn(SECTIONS, "")).toHaveLength(SECTIONS.length);
    expect(foundIn(SECTIONS, "walrus")).toEqual([]);
  });
});

it("what stands before the first heading is no section", () => {
  expect(sectionsOf("words\n# A\none\n## B\ntwo\n# C\n## D\nthree")).toEqual([
    { chapter: "A", title: "A", text: "one" },
    { chapter: "A", title: "B", text: "two" },
    { chapter: "C", title: "D", text: "three" },
  ]);
});
