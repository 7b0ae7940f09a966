import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import babel from "vite-plugin-babel";
import type { Logger } from "babel-plugin-react-compiler";

/** What the compiler looks for besides what it needs itself: all that its rules for linters do. */
const LOOKED_FOR = {
  validateNoSetStateInEffects: true,
  validateNoJSXInTryStatements: true,
  validateNoImpureFunctionsInRender: true,
  validateStaticComponents: true,
  validateNoFreezingKnownMutableFunctions: true,
  validateNoVoidUseMemo: true,
};

/** Not all of that is an error to the compiler by itself. */
const logger: Logger = {
  logEvent(_file, event) {
    if (event.kind !== "CompileError" || event.detail.severity !== "Error") return;
    const at = event.detail.primaryLocation();
    const line = at && typeof at !== "symbol" ? at.start.line : "?";
    throw new Error(`line ${line}: ${event.detail.reason}`);
  },
};

/** React's compiler: components and hooks remember what they made of the same values, and one that breaks
 * React's rules fails the build. Files are told apart by their ending: in `.ts`, `<T>` is a type. */
const compiled = (ending: string, ...syntax: ("typescript" | "jsx")[]): Plugin => ({
  ...babel({
    include: new RegExp(`/src/.*\\.${ending}$`),
    exclude: /node_modules/,
    babelConfig: {
      babelrc: false,
      configFile: false,
      parserOpts: { plugins: syntax },
      plugins: [
        [
          "babel-plugin-react-compiler",
          { panicThreshold: "critical_errors", environment: LOOKED_FOR, logger },
        ],
      ],
    },
  }),
  apply: "build",
});

export default defineConfig({
  plugins: [compiled("ts", "typescript"), compiled("tsx", "typescript", "jsx"), react()],
  base: "/static/",
  // The sheet's lettering is the core's own font file: what the board shows is what is plotted.
  server: { fs: { allow: [".."] }, proxy: { "/api": "http://127.0.0.1:8000" } },
  build: {
    target: "es2022",
    chunkSizeWarningLimit: 1500,
    // That the compiler takes most of the time is known.
    rolldownOptions: { checks: { pluginTimings: false } },
  },
});
