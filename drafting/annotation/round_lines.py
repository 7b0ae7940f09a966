"""The centres of circles and arcs, which reach a drawing as short straight stretches."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from drafting.annotation.measures import circle_through
from drafting.geometry.boxes import Point

#: An arc has as many stretches at least, and bends by no more from one to the next; degrees.
MIN_STRETCHES, MAX_BEND = 4, 50.0
#: Its corners lie as near to their circle, mm, or as a share of its radius.
NEAR, NEAR_SHARE = 0.5, 0.002
#: So many of its corners are looked at, at least, however many there are.
CHECKED = 8


def centres(line: Sequence[Point]) -> Iterator[Point]:
    """The centre of each arc that a polyline has, in its order.

    >>> octagon = [(math.cos(k * math.pi / 4) * 100, math.sin(k * math.pi / 4) * 100) for k in range(9)]
    >>> [(round(x, 6) + 0.0, round(y, 6) + 0.0) for x, y in centres(octagon)]
    [(0.0, 0.0)]
    """
    start = 0
    while start + MIN_STRETCHES < len(line):
        end, way, centre = start + 2, _bend(*line[start : start + 3]), None
        while end < len(line):
            bend = _bend(*line[end - 2 : end + 1])
            if bend * way <= 0 or abs(bend) > MAX_BEND:
                break
            if end - start >= MIN_STRETCHES:
                found = _centre(line, start, end)
                if found is None:
                    break
                centre = found
            end += 1
        if centre is not None:
            yield centre
        start = start + 1 if centre is None else end - 1


def _centre(line: Sequence[Point], start: int, end: int) -> Point | None:
    """The centre of the points from one to another, where they lie on an arc. The first and the last may lie
    within a stretch, where another line ended the arc."""
    start, end = start + 1, end - 1
    share = (end - start) // 2
    if math.dist(line[start], line[end]) < math.dist(line[start], line[start + share]):
        # Of what closes nearly, a third: its ends tell little.
        share = (end - start) // 3
    circle = circle_through(line[start], line[start + share], line[start + 2 * share])
    if circle is None:
        return None
    near = max(NEAR, circle.radius * NEAR_SHARE)
    some = [*line[start : end + 1 : max((end - start) // CHECKED, 1)], line[end]]
    on_it = all(abs(math.dist(circle.centre, point) - circle.radius) <= near for point in some)
    return circle.centre if on_it else None


def _bend(a: Point, b: Point, c: Point) -> float:
    """By how much a line bends at the second of three points, degrees anticlockwise."""
    turn = math.atan2(c[1] - b[1], c[0] - b[0]) - math.atan2(b[1] - a[1], b[0] - a[0])
    return math.degrees(math.atan2(math.sin(turn), math.cos(turn)))
