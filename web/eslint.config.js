import boundaries from "eslint-plugin-boundaries";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** What each part of the tree may import; nothing else. */
const MAY_IMPORT = {
  words: ["words"],
  api: ["api", "words"],
  theme: ["theme"],
  canvas: ["canvas", "api", "theme", "contract", "words"],
  stores: ["stores", "canvas", "api", "words"],
  sync: ["sync", "stores", "canvas", "api", "words"],
  components: ["components", "sync", "stores", "canvas", "api", "theme", "words"],
};
const LOWER = Object.keys(MAY_IMPORT);

export default tseslint.config(
  { ignores: ["dist", "src/api/schema.d.ts"] },
  ...tseslint.configs.strict,
  {
    plugins: { boundaries, "react-hooks": hooks },
    settings: {
      "import/resolver": { node: { extensions: [".ts", ".tsx", ".json"] } },
      "boundaries/include": ["src/**/*"],
      "boundaries/elements": [
        ...LOWER.map((type) => ({ type, pattern: `src/${type}` })),
        { type: "feature", pattern: "src/features/*", capture: ["name"] },
        { type: "app", pattern: "src", partialMatch: false },
      ],
    },
    rules: {
      "max-len": ["error", { code: 110 }],
      // The other rules of React are those of its compiler, which the build holds (vite.config.ts).
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "error",
      // A name that begins with an underscore is there to be left out.
      "@typescript-eslint/no-unused-vars": ["error", { varsIgnorePattern: "^_", argsIgnorePattern: "^_" }],
      "boundaries/dependencies": [
        "error",
        {
          default: "disallow",
          policies: [
            ...LOWER.map((type) => ({
              from: { element: { type } },
              allow: { to: { element: { type: MAY_IMPORT[type] } } },
            })),
            { from: { element: { type: "feature" } }, allow: { to: { element: { type: LOWER } } } },
            // No feature imports another.
            {
              from: { element: { type: "feature" } },
              allow: {
                to: { element: { type: "feature", captured: { name: "{{from.element.captured.name}}" } } },
              },
            },
            {
              from: { element: { type: "app" } },
              allow: { to: { element: { type: [...LOWER, "feature", "app"] } } },
            },
          ],
        },
      ],
    },
  },
  {
    files: ["src/canvas/**"],
    rules: {
      "no-restricted-imports": ["error", { patterns: ["react", "react-dom", "@mui/*", "zustand"] }],
    },
  },
);
