"""Dimensioning along a line that is drawn across a plan or a section: every face of a wall that it meets."""

from __future__ import annotations

import math

import numpy as np

from drafting.annotation.anchors import SAME, Anchor, described
from drafting.annotation.corners import Corners
from drafting.annotation.dimensions import MAX_POINTS, Dimension, Measures, StyleName
from drafting.annotation.outer_chains import cut_walls
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.linework.model import CUT, Linework

#: A line that leaves an axis of the drawing by less is taken to run along it; degrees.
_ALONG = 3.0


def inner_chain(
    linework: Linework, corners: Corners, start: Point, end: Point, style: StyleName = "millimetres"
) -> Dimension:
    """The chain through every face of a cut wall between two points, on the line itself.

    Raises:
        SheetError: the line meets no walls, or the two points lie in one place.
    """
    way = np.array(end) - np.array(start)
    length = float(np.hypot(*way))
    if length < SAME:
        raise SheetError("This line has no length. Choose two points that are apart.")
    angle = math.degrees(math.atan2(way[1], way[0])) % 180
    measures: Measures = "aligned"
    if min(angle, 180 - angle) < _ALONG:
        measures, end = "horizontal", (end[0], start[1])
    elif abs(angle - 90) < _ALONG:
        measures, end = "vertical", (start[0], end[1])
    found = _crossings(linework, corners, start, end)
    if len(found) < 2:
        raise SheetError("This line crosses no walls. Draw it across some that are cut.")
    if len(found) > MAX_POINTS:
        raise SheetError(f"This line crosses more than {MAX_POINTS} faces. Draw a shorter one.")
    return Dimension(tuple(found), measures, 0.0, style=style)


def _crossings(linework: Linework, corners: Corners, start: Point, end: Point) -> list[Anchor]:
    """Where a line meets the faces of walls that are cut, in its order."""
    walls = cut_walls(linework)
    packed = linework.packed
    a, way = np.array(start), np.array(end) - np.array(start)
    met: list[tuple[float, int]] = []
    for k in np.flatnonzero((packed.role == CUT) & np.isin(packed.element, list(walls))).tolist():
        points = packed.lines[k][:, :2]
        first, step = points[:-1], np.diff(points, axis=0)
        # Where a + t way = first + s step.
        bottom = way[0] * step[:, 1] - way[1] * step[:, 0]
        clear = np.abs(bottom) > 1e-9
        away = first - a
        with np.errstate(divide="ignore", invalid="ignore"):
            t = (away[:, 0] * step[:, 1] - away[:, 1] * step[:, 0]) / bottom
            s = (away[:, 0] * way[1] - away[:, 1] * way[0]) / bottom
        inside = clear & (t >= 0) & (t <= 1) & (s >= -1e-6) & (s <= 1 + 1e-6)
        met.extend((float(value), int(packed.element[k])) for value in t[inside])
    found: list[Anchor] = []
    length, last = float(np.hypot(*way)), -math.inf
    for share, element in sorted(met):
        if (share - last) * length < SAME:
            continue
        last = share
        u, v = (a + share * way).tolist()
        known = corners.of(linework.elements[element])
        anchor = described((u, v), linework.elements[element], known) if known else Anchor((u, v))
        # A corner that is near lies aside of the line; the place on it is what was meant.
        found.append(anchor if math.dist(anchor.at, (u, v)) < SAME else Anchor((u, v)))
    return found
