import { defineConfig } from "vitest/config";

/** They have the server stood in for, which no other test may meet: their modules are their own. */
const APART = ["tests/sync.test.ts", "tests/together.test.ts"];
const set = { environment: "node", setupFiles: ["tests/words.ts"] } as const;

export default defineConfig({
  test: {
    projects: [
      { test: { ...set, name: "pure", include: ["tests/**/*.test.ts"], exclude: APART, isolate: false } },
      { test: { ...set, name: "apart", include: APART } },
    ],
  },
  server: { fs: { allow: [".."] } },
});
