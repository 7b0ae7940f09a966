/** Units and scales of drawings from others. */
import type { ReceivedFile, ViewSpec } from "../../api/client";
import { t } from "../../words/words";

/** Real mm of one unit. */
export const UNITS: readonly (readonly [mm: string, name: string])[] = [
  ["1", t("Millimetres")],
  ["10", t("Centimetres")],
  ["1000", t("Metres")],
  ["25.4", t("Inches")],
  ["304.8", t("Feet")],
];
/** At what a drawing on paper is taken to be until somebody says otherwise. */
const DEFAULT_SCALE = 100;

/** The view of a file as it is brought in: as the file says, or as a guess that is to be checked. */
export function specOf(file: ReceivedFile): ViewSpec {
  const { facts } = file;
  return {
    kind: "received",
    file: file.file,
    name: file.name,
    mm: facts.paper ? (facts.mm ?? 1) * DEFAULT_SCALE : (facts.mm ?? guessedUnit(facts.size)),
    origin: facts.low,
    page: 1,
    shown: { without_layers: facts.hidden },
  };
}

/** A file that says no unit: what makes of its size one that buildings and sites have. */
export function guessedUnit([width, height]: readonly [number, number]): number {
  const size = Math.max(width, height);
  return size > 3_000 ? 1 : size > 400 ? 10 : 1000;
}

/** The scale of a drawing on paper, as 1 : so much. */
export const scaleOf = (spec: ViewSpec, file: ReceivedFile): number => (spec.mm ?? 1) / (file.facts.mm ?? 1);

/** The unit with which two points that are so far apart are as far apart as they truly are. */
export const correctedUnit = (mm: number, measured: number, truly: number): number =>
  Number(((mm * truly) / measured).toPrecision(9));

/** A spec that takes its lines from a newer file: unit, origin and layers stay as they were told. */
export const withFile = (spec: ViewSpec, file: ReceivedFile): ViewSpec => ({
  ...spec,
  file: file.file,
  name: file.name,
  page: Math.min(spec.page ?? 1, file.facts.pages),
});
