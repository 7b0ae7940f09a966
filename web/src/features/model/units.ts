/** Units of length that building files come in. */
import type { Unit } from "../../api/client";
import { choicesOf } from "../../components/choices";

export const FILE_UNITS = choicesOf<Unit>({
  mm: "Millimetres",
  cm: "Centimetres",
  m: "Metres",
  in: "Inches",
  ft: "Feet",
});

export const unitName = (unit: Unit): string => FILE_UNITS.find(([key]) => key === unit)?.[1] ?? unit;
