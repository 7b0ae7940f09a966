/** The guide: its sections, what is found in it, and that it speaks of what there is. */
import { describe, expect, it } from "vitest";
import german from "../../docs/guide.de.md?raw";
import guide from "../../docs/guide.md?raw";
import words from "../src/words/de.json";
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

describe("the guide in German", () => {
  const theirs = sectionsOf(german);
  const said = (text: string) => [...text.matchAll(/(?<!\*)\*([^*\n]+)\*(?!\*)/g)].map((found) => found[1]!);
  const plain = (name: string) => name.replace(/\s/g, " ").replace(/ ?…$/, "");

  it("has the same sections as the English one", () => {
    const shape = (sections: typeof theirs) => sections.map((s) => s.chapter === s.title);
    expect(shape(theirs)).toEqual(shape(SECTIONS));
  });

  it("names what is on the screen as the screen does", () => {
    const known = new Set(Object.values(words).map(plain));
    expect(said(german.replace(/\n/g, " ")).filter((name) => !known.has(plain(name)))).toEqual([]);
  });
});

it("what stands before the first heading is no section", () => {
  expect(sectionsOf("words\n# A\none\n## B\ntwo\n# C\n## D\nthree")).toEqual([
    { chapter: "A", title: "A", text: "one" },
    { chapter: "A", title: "B", text: "two" },
    { chapter: "C", title: "D", text: "three" },
  ]);
});
