/** Browsers are called as people call them, whatever they call themselves. */
import { expect, it } from "vitest";
import { browserOf } from "../src/components/browsers";

it("a browser and its system are told from what it calls itself", () => {
  const chrome = "Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/131.0 Safari/537.36";
  expect(browserOf(chrome)).toBe("Chrome on Windows");
  expect(browserOf(`${chrome} Edg/131.0`)).toBe("Edge on Windows");
  expect(browserOf("Mozilla/5.0 (X11; Linux x86_64; rv:132.0) Gecko/20100101 Firefox/132.0")).toBe(
    "Firefox on Linux",
  );
  expect(browserOf("Mozilla/5.0 (iPad; CPU OS 18_0 like Mac OS X) Version/18.0 Safari/604.1")).toBe(
    "Safari on iOS",
  );
});

it("another is called what it calls itself", () => {
  expect(browserOf("Fieldbook 3")).toBe("Fieldbook 3");
  expect(browserOf("")).toBe("a program");
});
