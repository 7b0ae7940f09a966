/**
 * The words of the screen. They stand in English where they are used, and in a message file for each
 * language; `npm run words` gathers new ones.
 */
import i18next from "i18next";

/** Languages that the screen has all its words in, each by its own name. */
export const LANGUAGES = { en: "English", de: "Deutsch" } as const;
export type Language = keyof typeof LANGUAGES;

const MESSAGES: Record<Language, () => Promise<{ default: Record<string, string> }>> = {
  en: () => import("./en.json"),
  de: () => import("./de.json"),
};

/**
 * Words in the language of the screen.
 *
 * @example t("{count} sheets", { count: 3 }) // "3 sheets"
 */
export const t = (words: string, values: Record<string, unknown> = {}): string =>
  i18next.t(words, Object.fromEntries(Object.entries(values).map(([name, value]) => [name, shown(value)])));

/** As JSX shows it: nothing where there is nothing, or where a condition does not hold. */
const shown = (value: unknown) => (value === false || value == null ? "" : value);

/** Words that begin with a capital, within a sentence; German nouns keep theirs. */
export const inSentence = (words: string) => (spoken() === "en" ? words.toLowerCase() : words);

/** The language of the screen. */
export const spoken = () => i18next.language as Language;

/** The language of the browser, where the screen has that. */
export const ofBrowser = (): Language =>
  (Object.keys(LANGUAGES) as Language[]).find((known) => globalThis.navigator?.language.startsWith(known)) ??
  "en";

/** Choose the language, before anything that has words is loaded. */
export async function speak(language: Language) {
  const { default: translation } = await MESSAGES[language]();
  await i18next.init({
    lng: language,
    resources: { [language]: { translation } },
    // The words are their own keys: nothing in them is a path.
    keySeparator: false,
    nsSeparator: false,
    interpolation: { prefix: "{", suffix: "}", escapeValue: false },
  });
  if (typeof document !== "undefined") document.documentElement.lang = language;
}
