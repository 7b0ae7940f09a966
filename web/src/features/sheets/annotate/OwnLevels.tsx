/** Asks which levels are to be set beside an elevation or a section, and on which side. */
import type { Viewport } from "../../../api/client";
import type { AnnotationEdits } from "./annotationCommands";
import { ForAllOf } from "./ForAllOf";
import type { Levelled, LevelSide } from "./offeredPieces";
import { t } from "../../../words/words";

const WANTED: readonly (readonly [Levelled, string])[] = [
  ["openings", t("Sills and heads")],
  ["slabs", t("Floors, eaves and ridges")],
  ["whole", t("Highest and lowest point")],
];
const SIDES: readonly (readonly [LevelSide, string])[] = [
  ["left", t("On the left")],
  ["right", t("On the right")],
];

interface Props {
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function OwnLevels({ viewport, edits, onClose }: Props) {
  return (
    <ForAllOf<Levelled, LevelSide>
      title={t("Set levels")}
      text={t(
        "Beside the building, as many as can be told apart at this scale. Done again, they are updated.",
      )}
      verb={t("Set levels")}
      parts={WANTED}
      ticked={["openings", "slabs", "whole"]}
      how={{ label: t("Side"), choices: SIDES, value: "right" }}
      onAnswer={(wanted, side, home) => edits.setLevels(viewport, wanted, side, home)}
      onClose={onClose}
    />
  );
}
