/**
 * What the server says, in the language of the screen. The server speaks English; a message file has its
 * sentences, with names in braces where those stand. What is not there is shown as it came.
 */
import { spoken } from "./words";

type Sentences = Record<string, string>;
type Pattern = readonly [pattern: RegExp, said: string];

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
    .map(([key, said]) => [patternOf(key), said] as const);
}

/**
 * A sentence of the server.
 *
 * @example said("“Roof plan” has not been drawn yet. Draw it.")
 */
export function said(sentence: string): string {
  const found = whole[sentence];
  if (found) return found;
  for (const [pattern, words] of patterns) {
    const parts = pattern.exec(sentence)?.groups;
    if (parts) return words.replace(/\{(\w+)\}/g, (_, name: string) => said(parts[name] ?? ""));
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
