/** Asks on which sides a plan is to be dimensioned outside, and how. */
import type { Viewport } from "../../../api/client";
import type { AnnotationEdits } from "./annotationCommands";
import type { Side } from "./offeredPieces";
import { ForAllOf } from "./ForAllOf";
import { STYLES } from "./pieceChoices";
import { t } from "../../../words/words";

const SIDES: readonly (readonly [Side, string])[] = [
  ["top", t("Above")],
  ["bottom", t("Below")],
  ["left", t("On the left")],
  ["right", t("On the right")],
];

interface Props {
  viewport: Viewport;
  edits: AnnotationEdits;
  onClose: () => void;
}

export function OuterChains({ viewport, edits, onClose }: Props) {
  const value = viewport.scale.includes("=") ? "feet" : "millimetres";
  return (
    <ForAllOf
      title={t("Dimension the outer walls")}
      text={t("Openings, wall faces, grid and overall, one outside the other. Done again, they are updated.")}
      verb={t("Dimension")}
      parts={SIDES}
      ticked={["bottom", "left"]}
      how={{ label: t("Figures in"), choices: STYLES, value }}
      onAnswer={(sides, figures, home) => edits.dimensionOutside(viewport, sides, figures, home)}
      onClose={onClose}
    />
  );
}
