/** Units of length that building files come in. */
import type { Unit } from "../../api/client";
import { choicesOf } from "../../components/choices";
import { t } from "../../words/words";

export const FILE_UNITS = choicesOf<Unit>({
  mm: t("Millimetres"),
  cm: t("Centimetres"),
  m: "Metres",
  in: t("Inches"),
  ft: t("Feet"),
});

export const unitName = (unit: Unit): string => FILE_UNITS.find(([key]) => key === unit)?.[1] ?? unit;
