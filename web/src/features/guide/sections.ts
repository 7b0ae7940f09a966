/** The guide in sections, and those that say something of what is looked for. */

export interface Section {
  /** The chapter that it stands in. */
  chapter: string;
  title: string;
  /** What it says, as Markdown without its heading. */
  text: string;
}

/** A guide's sections: each heading of the first or the second level begins one. */
export function sectionsOf(markdown: string): Section[] {
  const found: Section[] = [];
  let chapter = "";
  for (const part of markdown.split(/^(?=##? )/m)) {
    const [heading = "", ...lines] = part.split("\n");
    const title = heading.replace(/^#+\s*/, "").trim();
    if (!title) continue;
    if (!heading.startsWith("##")) chapter = title;
    const text = lines.join("\n").trim();
    // A chapter that says nothing before its first section is a heading alone.
    if (text) found.push({ chapter, title, text });
  }
  return found;
}

/** Sections in which all words stand, those first that have them in their title. */
export function foundIn(sections: readonly Section[], typed: string): Section[] {
  const words = typed.toLocaleLowerCase().split(/\s+/).filter(Boolean);
  const has = (text: string) => words.every((word) => text.toLocaleLowerCase().includes(word));
  const titled = sections.filter((s) => has(`${s.chapter} ${s.title}`));
  return [...titled, ...sections.filter((s) => !titled.includes(s) && has(`${s.title} ${s.text}`))];
}
