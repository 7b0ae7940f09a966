/** Classes of the open standard (ISO 16739-1) as people say them. */
import { t } from "../words/words";

const COMMON: Readonly<Record<string, string>> = {
  beam: t("beam"),
  "building element proxy": t("building element"),
  chimney: t("chimney"),
  column: t("column"),
  covering: t("covering"),
  "curtain wall": t("curtain wall"),
  door: t("door"),
  footing: t("footing"),
  furniture: t("furniture"),
  "geographic element": t("ground"),
  member: t("member"),
  pile: t("pile"),
  plate: t("plate"),
  railing: t("railing"),
  ramp: t("ramp"),
  roof: t("roof"),
  site: t("site"),
  slab: t("slab"),
  space: t("space"),
  stair: t("stair"),
  "stair flight": t("flight of stairs"),
  wall: t("wall"),
  window: t("window"),
};

/**
 * A class of the file in words.
 *
 * @example classWords("IfcWallStandardCase") // "wall"
 */
export function classWords(name: string): string {
  const words = name
    .replace(/^Ifc/, "")
    .replace(/StandardCase$/, "")
    .replaceAll(/([a-z])([A-Z])/g, "$1 $2")
    .toLowerCase();
  return COMMON[words] ?? words;
}

export const asSentence = (words: string) => `${words.slice(0, 1).toUpperCase()}${words.slice(1)}`;
