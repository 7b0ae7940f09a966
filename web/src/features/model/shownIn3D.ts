/** What is shown in 3D, as a view says it. */
import type { Shown } from "../../api/client";
import type { By } from "./PartsList";
import type { SolidElement } from "./solid";

/** The part that an element belongs to; blank for none. */
export const partOf = (by: By, element: SolidElement | undefined): string => element?.[by] ?? "";

/** Whole parts are left out by their names, as far as views know such parts; the rest element by element. */
const PARTS: Partial<Record<By, "without_storeys" | "without_layers" | "without_classes">> = {
  storey: "without_storeys",
  layer: "without_layers",
  class: "without_classes",
};

/**
 * What a view shows that looks like what is seen.
 *
 * @param off names of parts, and elements as `id:` and their id, that are not shown.
 */
export function shownIn3D(elements: readonly SolidElement[], by: By, off: ReadonlySet<string>): Shown {
  const shown: Required<Shown> = {
    without_layers: [],
    without_storeys: [],
    without_classes: [],
    without: [],
    only: [],
  };
  const field = PARTS[by];
  const names = field ? [...off].filter((part) => part && !part.startsWith("id:")) : [];
  if (field) shown[field] = names;
  shown.without = elements
    .filter((e) => off.has(`id:${e.id}`) || (off.has(partOf(by, e)) && !names.includes(partOf(by, e))))
    .map((e) => e.id);
  return shown;
}
