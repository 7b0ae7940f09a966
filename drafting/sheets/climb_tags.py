"""What plans say of flights and ramps, along their lower end: risers, rise and going, or the slope."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from shapely import Point as ShapelyPoint
from shapely import Polygon

from drafting.building.climbs import Climb
from drafting.building.model import Storey, storey_in
from drafting.geometry.boxes import Point
from drafting.sheets.marked_view import CLEAR, MarkedView, unit_vector
from drafting.styles.lengths import feet_and_inches, plain_figure
from drafting.views.plan import Plan

#: A flight that begins so far below a storey's floor begins on it; mm.
ON_FLOOR = 300.0
#: Feet and inches of steps go to eighths of an inch.
EIGHTHS = 8


@dataclass(frozen=True)
class ClimbTag:
    """What stands on a flight: the foot of it and the way up on paper, its width there, mm, and the words."""

    element: str
    foot: Point
    way: Point
    width: float
    text: str


def climb_tags_in(
    seen: MarkedView, climbs: Sequence[Climb], storeys: Sequence[tuple[str, float]], in_feet: bool
) -> list[ClimbTag]:
    """The words for what begins on a plan's storey, below its cut, where that lies within the viewport. None
    where the plan shows flights as they are modelled."""
    if not isinstance(seen.spec, Plan) or not seen.spec.line_settings.stairs:
        return []
    known = [Storey(*each) for each in storeys]
    storey = storey_in(known, seen.spec.storey)
    if storey is None:
        return []
    window = Polygon(seen.viewport.outline).buffer(-CLEAR)
    found = []
    for climb in climbs:
        if _begins_on(climb, known) != storey or climb.floor >= storey.elevation + seen.spec.cut:
            continue
        foot, text = seen.to_paper((*climb.foot, climb.floor)), climb_text(climb, in_feet)
        if text and window.contains(ShapelyPoint(foot)):
            way, width = (
                unit_vector(seen.way((*climb.way, 0.0))),
                climb.width * float(seen.viewport.scale.ratio),
            )
            found.append(ClimbTag(climb.id, foot, way, width, text))
    return found


def _begins_on(climb: Climb, storeys: Sequence[Storey]) -> Storey:
    """The storey that a flight begins on: the lowest for what comes up to that from the ground."""
    below = [storey for storey in storeys if storey.elevation - ON_FLOOR <= climb.floor]
    return max(below, key=lambda s: s.elevation) if below else min(storeys, key=lambda s: s.elevation)


def climb_text(climb: Climb, in_feet: bool) -> str:
    """What is written of a flight or ramp; blank where nothing is known.

    >>> from drafting.building.climbs import Climb, Steps
    >>> climb_text(Climb("", (0, 0), (1, 0), 900, 0, 2900, Steps(17, 170.6, 280.0)), False)
    '17 × 171/280'
    >>> climb_text(Climb("", (0, 0), (1, 0), 900, 0, 500, slope=1 / 12), False)
    '8.3 %'
    """
    if climb.slope is not None:
        return f"{plain_figure(climb.slope * 100, 1)} %"
    steps = climb.steps
    size = ""
    if steps.rise and steps.going:
        rise, going = (
            feet_and_inches(x, EIGHTHS).removeprefix("0'-") if in_feet else f"{x:.0f}"
            for x in (steps.rise, steps.going)
        )
        size = f"{rise} / {going}" if in_feet else f"{rise}/{going}"
    if steps.risers:
        return f"{steps.risers} × {size}" if size else f"{steps.risers} risers"
    return size
