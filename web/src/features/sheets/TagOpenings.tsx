/** Asks which doors and windows of a drawing are to be tagged, and with what. */
import type { Viewport } from "../../api/client";
import type { AnnotationEdits, Tagged } from "./annotationCommands";
import { ForAllOf } from "./ForAllOf";
import { TAG_WORDS } from "./pieceChoices";

const KINDS: readonly (readonly [Tagged, string])[] = [
  ["doors", "Doors"],
  ["windows", "Windows"],
];

interface Props {
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function TagOpenings({ viewport, edits, onClose }: Props) {
  return (
    <ForAllOf
      title="Tag doors and windows"
      text="Each beside its own, clear of each other. Done again, new ones are added and the rest stay."
      verb="Tag"
      parts={KINDS}
      ticked={["doors", "windows"]}
      how={{ label: "Shows", choices: TAG_WORDS, value: "number" }}
      onAnswer={(of, shows, home) => edits.tagOpenings(viewport, of, shows, home)}
      onClose={onClose}
    />
  );
}
