"""Storeys' levels beside elevations and sections: their heights and names, clear of each other."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from shapely import LineString, Polygon

from drafting.geometry.boxes import union
from drafting.sheets.marked_view import AROUND, MarkedView, is_upright, longest_part
from drafting.styles.lengths import feet_and_inches
from drafting.styles.lettering import text_width

#: The triangle that stands on a level, its lettering, and how long its lines are at least; mm.
LEVEL_SIZE, LEVEL_TEXT, LEVEL_NAME, LEVEL_REACH = 2.5, 2.5, 2.0, 16.0
#: How far apart levels have to lie for their names to stand below them, and for their words to stand one
#: above the other; mm.
LEVEL_HIGH, LEVEL_LINE = 6.6, 3.6
#: A quarter of an inch, mm.
_QUARTER = 25.4 / 4


@dataclass(frozen=True)
class Level:
    """A storey's level: its height on paper, the ends between which it is marked, and what stands on it; mm.

    Attributes:
        left, right: where its line begins at the left of the building, or ends at its right.
        reach: how long that line is.
        beside: whether its name stands beside its height: levels are too near to each other for it below.
        on_right: whether it is lettered on the right: it is too near to the one below it.
    """

    y: float
    left: float
    right: float
    name: str
    height: str
    reach: float
    beside: bool = False
    on_right: bool = False


def levels_in(seen: MarkedView, storeys: Sequence[tuple[str, float]], feet: bool = False) -> list[Level]:
    """The storeys' levels (name, elevation in mm) that are seen in an upright view that is not turned."""
    if not is_upright(seen) or seen.viewport.turn or not seen.spec.to_scale:
        return []
    outline = Polygon(seen.viewport.outline)
    west, south, east, north = outline.bounds
    levels = []
    for name, elevation in storeys:
        _, y = seen.to_paper((seen.origin[0], seen.origin[1], elevation))
        part = (
            longest_part(LineString([(west, y), (east, y)]).intersection(outline))
            if south < y < north
            else None
        )
        if part is not None:
            left, _, right, _ = part.bounds
            reach = min(LEVEL_REACH, (right - left) / 4)
            levels.append(Level(y, left, right, name, level_text(elevation, feet), reach))
    return _set_apart(seen, sorted(levels, key=lambda level: level.y))


def _set_apart(seen: MarkedView, levels: Sequence[Level]) -> list[Level]:
    """Levels beside the building where its ends are seen, with all of their words, clear of each other."""
    gap = min((b.y - a.y for a, b in pairwise(levels)), default=math.inf)
    levels = [replace(level, beside=gap < LEVEL_HIGH) for level in levels]
    if gap < LEVEL_LINE:
        levels = [replace(level, on_right=bool(k % 2)) for k, level in enumerate(levels)]
    reach = max((_lettering(level) for level in levels), default=0.0)
    if seen.building is None or seen.viewport.shape != "rectangle":
        return levels
    own, around = seen.building, union([seen.building, *seen.taken])
    west, _, east, _ = Polygon(seen.viewport.outline).bounds
    if own.x >= west:
        levels = [replace(level, left=around.x - AROUND - reach, reach=reach) for level in levels]
    if own.right <= east:
        levels = [replace(level, right=around.right + AROUND + level.reach) for level in levels]
    return levels


def _lettering(level: Level) -> float:
    """How far the words of a level reach from the outer end of its line, mm."""
    height = 2 * LEVEL_SIZE + text_width(level.height, LEVEL_TEXT)
    name = text_width(level.name, LEVEL_NAME)
    return max(LEVEL_REACH, height + 1.0 + name if level.beside else max(height, 1.0 + name)) + 1.0


def level_text(elevation: float, feet: bool = False) -> str:
    """A level as the trade writes it: +2.900 and ±0.000 in metres, or +9'-6 1/4" in feet and inches, to a
    quarter."""
    if feet:
        sign = "±" if round(abs(elevation) / _QUARTER) == 0 else "+" if elevation > 0 else "−"
        return sign + feet_and_inches(abs(elevation), 4)
    sign = "±" if abs(elevation) < 0.5 else "+" if elevation > 0 else "−"
    return f"{sign}{abs(elevation) / 1000:.3f}"
