/** Where a pen table is drawn with. */
import type { Register, Sheet, Viewport } from "../../../api/client";
import { t } from "../../../words/words";

/** Where a table is drawn with, in words. */
export function usersOf(
  key: string,
  register: Register,
  sheets: readonly Sheet[],
  viewports: readonly Viewport[],
): string[] {
  const inside = viewports.filter((v) => v.pen_table === key);
  return [
    ...(register.pen_table === key ? [t("the whole set")] : []),
    ...sheets.filter((s) => s.pen_table === key).map((s) => s.number),
    ...new Set(
      inside.map((v) =>
        t("a viewport on {sheet}", { sheet: sheets.find((s) => s.id === v.sheet)?.number ?? t("a sheet") }),
      ),
    ),
  ];
}
