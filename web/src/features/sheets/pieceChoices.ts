/** What pieces of annotation can be, in the words of the screen. */
import type { DimensionSpec, NoteSpec, ScheduleSpec, TagSpec } from "../../api/client";
import { choicesOf } from "../../components/choices";

export const MEASURES = choicesOf<DimensionSpec["measures"]>({
  horizontal: "Horizontally",
  vertical: "Vertically",
  aligned: "Along the points",
});
export const STYLES = choicesOf<DimensionSpec["style"]>({
  millimetres: "Millimetres",
  centimetres: "Centimetres",
  metres: "Metres",
  feet: "Feet and inches",
});
export const LEADERS = choicesOf<NoteSpec["leader"]>({
  arrow: "With an arrow",
  dot: "With a dot",
  plain: "Plain",
  none: "None",
});
export const ALIGNS = choicesOf<NoteSpec["align"]>({ left: "Left", middle: "Middle", right: "Right" });
export const TAG_WORDS = choicesOf<TagSpec["shows"]>({
  number: "Number",
  size: "Size",
  both: "Number and size",
});
/** Where pieces that are made for a whole drawing belong. */
export const HOMES = choicesOf<"sheet" | "view">({
  sheet: "This viewport only",
  view: "Its view, on every sheet",
});
export const LISTED = choicesOf<ScheduleSpec["of"]>({ rooms: "Rooms", doors: "Doors", windows: "Windows" });
