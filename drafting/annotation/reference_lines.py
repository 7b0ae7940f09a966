"""Grid lines and storey levels as what annotation is attached to: they follow the building as elements do."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np

from drafting.annotation.anchors import AnchorCorner, ElementCorners
from drafting.geometry.boxes import Point

#: What the ids of grid lines and of storey levels begin with.
GRID, LEVEL = "grid:", "level:"
#: How far a line reaches that has no ends in a drawing, mm.
FAR = 1e6
#: A grid line is seen end on where it runs along the way that is looked, within this; as a sine.
_END_ON = 0.001

GridLine = tuple[str, Point, Point]
Line = tuple[Point, Point]


def reference_lines(
    grid: Sequence[GridLine], storeys: Sequence[tuple[str, float]], axes: Mapping[str, Sequence[float]]
) -> dict[str, Line]:
    """The grid lines and storey levels that are seen in a drawing, in its u and v, by their ids: in one from
    above the grid; in an upright one the levels, and of the grid what runs straight away from the viewer.

    Args:
        grid: name and ends of each line, in the building's x and y, mm.
        storeys: name and elevation of each, mm.
        axes: `right`, `up` and `origin` of the drawing.

    >>> flat = {"right": (1, 0, 0), "up": (0, 1, 0), "origin": (0, 0, 0)}
    >>> reference_lines([("A", (0, 0), (0, 9))], [("Ground", 0.0)], flat)
    {'grid:A': ((0.0, 0.0), (0.0, 9.0))}
    """
    right, up, origin = (np.array(axes[name], float) for name in ("right", "up", "origin"))

    def seen(x: float, y: float) -> Point:
        away = np.array([x, y, origin[2]]) - origin
        return float(away @ right), float(away @ up)

    if abs(right[2]) < 1e-6 and abs(up[2]) < 1e-6:
        return {GRID + name: (seen(*start), seen(*end)) for name, start, end in grid}
    if up[2] < 1 - 1e-6:
        return {}
    found: dict[str, Line] = {}
    for name, start, end in grid:
        length = math.dist(start, end)
        along = (np.array([end[0] - start[0], end[1] - start[1], 0.0]) @ right) / max(length, 1e-9)
        if length and abs(along) < _END_ON:
            u = seen(*start)[0]
            found[GRID + name] = (u, -FAR), (u, FAR)
    for name, elevation in storeys:
        v = float(elevation - origin[2])
        found[LEVEL + name] = (-FAR, v), (FAR, v)
    return found


def line_corners(line: Line) -> ElementCorners:
    """A line as annotation is attached to it: on its ends, or on a share of it."""
    (ax, ay), (bx, by) = line
    way = math.degrees(math.atan2(by - ay, bx - ax)) % 360
    ends = tuple(
        AnchorCorner((round(angle, 1) % 360,), (0.0, 0.0, 0.0, 0.0), 0, 1) for angle in (way, way + 180)
    )
    return ElementCorners(ends, line, frozenset({(0, 1)}))
