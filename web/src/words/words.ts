/**
 * The words of the screen. They stand in English where they are used, and in message files for every
 * language; `npm run words` gathers them.
 */
import i18next from "i18next";
import english from "./en.json";

/** Languages that the screen has all its words in, each by its own name. */
export const LANGUAGES = { en: "English" } as const;
export type Language = keyof typeof LANGUAGES;

/**
 * Words in the language of the screen.
 *
 * @example t("{count} sheets", { count: 3 }) // "3 sheets"
 */
export const t = (words: string, values?: Record<string, unknown>): string => i18next.t(words, values);

/** Choose the language, before anything that has words is loaded. */
export async function speak(language: Language) {
  await i18next.init({
    lng: language,
    fallbackLng: "en",
    resources: { en: { translation: english } },
    keySeparator: false,
    nsSeparator: false,
    pluralSeparator: "\u0000",
    contextSeparator: "\u0000",
    interpolation: { prefix: "{", suffix: "}", escapeValue: false },
    returnEmptyString: false,
  });
  document.documentElement.lang = language;
}
