/** The words of the screen in other languages: all of them, with the same values in them. */
import { afterEach, describe, expect, it } from "vitest";
import { listen, said } from "../src/words/said";
import { inSentence, speak, t } from "../src/words/words";
import german from "../src/words/de.json";
import english from "../src/words/en.json";
import server from "../src/words/server.de.json";

const valuesIn = (words: string) => [...words.matchAll(/\{(\w+)\}/g)].map(([, name]) => name).sort();
const edges = (words: string) => [/^\s/.test(words), /\s$/.test(words)];

describe("the words of the screen", () => {
  afterEach(() => speak("en"));

  it("are all there in German", () => {
    expect(Object.keys(german)).toEqual(Object.keys(english));
    expect(Object.entries(german).filter(([, words]) => !words.trim())).toEqual([]);
  });

  it("have the same values in them, and the same spaces about them", () => {
    const wrong = Object.entries(german).filter(
      ([key, words]) => `${valuesIn(words)} ${edges(words)}` !== `${valuesIn(key)} ${edges(key)}`,
    );
    expect(wrong).toEqual([]);
  });

  it("are said in the language that is chosen", async () => {
    expect(t("{count} sheets", { count: 3 })).toBe("3 sheets");
    expect(inSentence(t("Shape"))).toBe("shape");
    expect(t("{a}{b}{c}.", { a: false, b: null, c: 0 })).toBe("0.");
    await speak("de");
    expect(t("{count} sheets", { count: 3 })).toBe("3 Blätter");
    // A German noun keeps its capital within a sentence.
    expect(inSentence(t("Shape"))).toBe("Form");
    expect(t("Something that nobody has translated: {x}", { x: 1 })).toBe(
      "Something that nobody has translated: 1",
    );
  });
});

describe("what the server says", () => {
  afterEach(() => listen({}));

  it("has the same values in German", () => {
    const wrong = Object.entries(server).filter(
      ([key, words]) => `${valuesIn(words)}` !== `${valuesIn(key)}`,
    );
    expect(wrong).toEqual([]);
  });

  it("is found with names in it, and what stands there is said too", async () => {
    await listen(server);
    expect(said("“Roof plan” has not been drawn yet. Draw it.")).toBe(
      "„Roof plan“ ist noch nicht gezeichnet. Zeichnen Sie sie.",
    );
    expect(
      said(
        "A dimension has changed: 1800 is now 2400, 2400 is now 1800. Accept the new figures, or attach it again.",
      ),
    ).toBe(
      "Maß hat sich geändert: 1800 ist jetzt 2400, 2400 ist jetzt 1800. " +
        "Nehmen Sie die neuen Zahlen an, oder hängen Sie es neu an.",
    );
    expect(
      said("“A (1)” is cropped through the building (right and top). Fit the crop, or leave it."),
    ).toContain("„A (1)“ ist durch das Gebäude beschnitten (rechts und oben).");
  });

  it("stays as it came where nothing is known of it", async () => {
    await listen(server);
    expect(said("Something new happened.")).toBe("Something new happened.");
    // What stands within sentences alone fits no other.
    expect(said("This is now and then so")).toBe("This is now and then so");
    expect(said("")).toBe("");
  });
});
