"""The building's grid on drawings: thin lines with their names in bubbles (ISO 128-2: axes)."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shapely import LineString

from drafting.geometry.boxes import Point
from drafting.sheets.marked_view import (
    AROUND,
    MIN_LINE,
    STRAIGHT,
    MarkedView,
    drawn_out,
    is_upright,
    longest_part,
    looks_down,
    room_for_marks,
    unit_vector,
)

#: Radius of the bubble of a grid line; mm.
GRID_BUBBLE = 3.5


@dataclass(frozen=True)
class GridMark:
    """A line of the building's grid on paper, and the middle of the bubble with its name beyond its first
    end; mm."""

    name: str
    line: tuple[Point, Point]
    bubble: Point


def grid_in(seen: MarkedView, lines: Sequence[tuple[str, Point, Point]]) -> list[GridMark]:
    """The lines of a grid (name and ends, mm) that are seen: from above, or from the side by looking along
    them."""
    if not seen.spec.to_scale:
        return []
    window = room_for_marks(seen, 2 * GRID_BUBBLE + AROUND)
    found = []
    for name, (x0, y0), (x1, y1) in lines:
        if looks_down(seen):
            line = LineString(
                drawn_out(seen, [seen.to_paper((x0, y0, 0.0)), seen.to_paper((x1, y1, 0.0))], first=True)
            )
        elif (
            is_upright(seen)
            and abs(math.hypot(*seen.way((*unit_vector((x1 - x0, y1 - y0)), 0.0)))) < STRAIGHT
        ):
            across, _ = seen.to_paper((x0, y0, seen.origin[2]))
            low, high = window.bounds[1], window.bounds[3]
            line = LineString([(across, high), (across, low)])
        else:
            continue
        part = longest_part(line.intersection(window.buffer(-2 * GRID_BUBBLE)))
        if part is None or part.length < MIN_LINE:
            continue
        a, b = (
            (float(part.coords[0][0]), float(part.coords[0][1])),
            (float(part.coords[-1][0]), float(part.coords[-1][1])),
        )
        wx, wy = unit_vector((a[0] - b[0], a[1] - b[1]))
        found.append(GridMark(name, (a, b), (a[0] + wx * GRID_BUBBLE, a[1] + wy * GRID_BUBBLE)))
    return found
