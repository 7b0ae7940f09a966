/** How `npm run words` gathers the words of the screen into message files. */
export default {
  input: ["src/**/*.{ts,tsx}"],
  output: "src/words/$LOCALE.json",
  locales: ["en", "de"],
  defaultNamespace: "translation",
  // The words are their own keys: nothing in them is a path.
  keySeparator: false,
  namespaceSeparator: false,
  pluralSeparator: false,
  contextSeparator: false,
  defaultValue: (locale, _namespace, key) => (locale === "en" ? key : ""),
  lexers: { ts: ["JavascriptLexer"], tsx: ["JsxLexer"] },
  sort: true,
  createOldCatalogs: false,
};
