/** A browser by the words that it calls itself, as people call it. */
import { t } from "../words/words";

const BROWSERS: readonly (readonly [RegExp, string])[] = [
  [/Firefox\//, "Firefox"],
  [/Edg\//, "Edge"],
  [/OPR\//, "Opera"],
  [/(Chrome|Chromium)\//, "Chrome"],
  [/Safari\//, "Safari"],
];
const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/Android/, "Android"],
  [/iPhone|iPad/, "iOS"],
  [/Windows/, "Windows"],
  [/Mac OS X/, "macOS"],
  [/Linux/, "Linux"],
];

/** Such as "Firefox on Linux"; what it calls itself where it is none of the usual ones. */
export function browserOf(agent: string): string {
  const browser = BROWSERS.find(([sign]) => sign.test(agent))?.[1];
  const system = SYSTEMS.find(([sign]) => sign.test(agent))?.[1];
  if (!browser) return agent.slice(0, 40) || t("a program");
  return system ? t("{browser} on {system}", { browser, system }) : browser;
}
