/** Lengths of the building on the screen, in what somebody prefers. On paper they are as its styles say. */
import type { Preferences } from "../api/client";
import { usePreferences } from "../stores/preferences";
import { t } from "../words/words";

const INCH = 25.4;
/** Fractions of an inch that are told. */
const PARTS = 8;

/** In which of them lengths are read. */
export type Lengths = Preferences["lengths"];

export const useLengths = (): Lengths => usePreferences((s) => s.lengths);

/** 2.35 m, 2350 mm or 7' 8 1/2"; from mm. */
export function lengthOf(mm: number, lengths: Lengths, digits = 2): string {
  if (lengths === "feet") return inFeet(mm);
  return lengths === "millimetres"
    ? t("{mm} mm", { mm: Math.round(mm) })
    : `${(mm / 1000).toFixed(digits)} m`;
}

/** Measured lengths, which are told to the millimetre. */
export const exactLengthOf = (mm: number, lengths: Lengths): string =>
  lengths === "feet" ? inFeet(mm) : t("{mm} mm", { mm: Math.round(mm) });

function inFeet(mm: number): string {
  const parts = Math.round((Math.abs(mm) / INCH) * PARTS);
  const [feet, inches, over] = [
    Math.floor(parts / PARTS / 12),
    Math.floor(parts / PARTS) % 12,
    parts % PARTS,
  ];
  const by = over % 4 === 0 ? 4 : over % 2 === 0 ? 2 : 1;
  const fraction = over ? ` ${over / by}/${PARTS / by}` : "";
  return `${mm < 0 ? "-" : ""}${feet}' ${inches}${fraction}"`;
}
