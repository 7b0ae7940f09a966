/** Asks which levels are to be set beside an elevation or a section, and on which side. */
import type { Viewport } from "../../../api/client";
import type { AnnotationEdits } from "./annotationCommands";
import { ForAllOf } from "./ForAllOf";
import type { Levelled, LevelSide } from "./offeredPieces";

const WANTED: readonly (readonly [Levelled, string])[] = [
  ["openings", "Sills and heads"],
  ["slabs", "Floors, eaves and ridges"],
  ["whole", "Highest and lowest point"],
];
const SIDES: readonly (readonly [LevelSide, string])[] = [
  ["left", "On the left"],
  ["right", "On the right"],
];

interface Props {
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function OwnLevels({ viewport, edits, onClose }: Props) {
  return (
    <ForAllOf<Levelled, LevelSide>
      title="Set levels"
      text="Beside the building, as many as can be told apart at this scale. Done again, they are updated."
      verb="Set levels"
      parts={WANTED}
      ticked={["openings", "slabs", "whole"]}
      how={{ label: "Side", choices: SIDES, value: "right" }}
      onAnswer={(wanted, side, home) => edits.setLevels(viewport, wanted, side, home)}
      onClose={onClose}
    />
  );
}
