/**
 * What the server says, in the language of the screen. The server speaks English; a message file has its
 * sentences, with names in braces where those stand. What is not there is shown as it came.
 */
import { spoken } from "./words";

type Sentences = Record<string, string>;
/** What is no sentence stands only within others: it would fit too much. */
interface Pattern {
  pattern: RegExp;
  words: string;
  within: boolean;
}

const SENTENCES: Partial<Record<string, () => Promise<{ default: Sentences }>>> = {
  de: () => import("./server.de.json"),
};
let whole: Sentences = {};
let patterns: readonly Pattern[] = [];

/** Learn what the server says, before anything is shown. */
export async function listen(sentences?: Sentences) {
  whole = sentences ?? (await SENTENCES[spoken()]?.())?.default ?? {};
  patterns = Object.entries(whole)
    .filter(([key]) => key.includes("{"))
    // The longest first: of two that fit, it says more.
    .sort(([a], [b]) => b.length - a.length)
    .map(([key, words]) => ({ pattern: patternOf(key), words, within: /^\{.*[^.?]$/.test(key) }));
}

/**
 * A sentence of the server.
 *
 * @example said("“Roof plan” has not been drawn yet. Draw it.")
 */
export const said = (sentence: string): string => saidWhere(sentence, false);

function saidWhere(sentence: string, isPart: boolean): string {
  const found = whole[sentence];
  if (found) return found;
  for (const { pattern, words, within } of patterns) {
    const parts = within && !isPart ? undefined : pattern.exec(sentence)?.groups;
    if (parts) return words.replace(/\{(\w+)\}/g, (_, name: string) => saidWhere(parts[name] ?? "", true));
  }
  return sentence;
}

/** “{name}” is empty. → a pattern in which whatever stands there has that name. */
const patternOf = (key: string) =>
  new RegExp(
    `^${key
      .split(/\{(\w+)\}/)
      .map((part, k) => (k % 2 ? `(?<${part}>.+)` : part.replace(/[.*+?^$()[\]\\|]/g, "\\$&")))
      .join("")}$`,
    "s",
  );
