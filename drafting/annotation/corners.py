"""The corners of elements in a drawing: what annotation is attached to."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence

import numpy as np

from drafting.annotation.anchors import ON, SAME, AnchorCorner, ElementCorners, alike
from drafting.annotation.round_lines import centres
from drafting.geometry.boxes import Point
from drafting.geometry.polylines import Floats
from drafting.linework.model import ROLES, Linework

#: Lines of these roles are not the element's own edges, or come and go with the settings of the view.
_NOT_EDGES = tuple(ROLES.index(role) for role in ("hidden", "overhead", "symbol"))
#: A bend of a line by less is part of something round, degrees.
SMOOTH = 12.0


class Corners:
    """The corners of a drawing, element by element; each element is looked at when somebody asks for it."""

    def __init__(self, linework: Linework) -> None:
        self._linework = linework
        self._numbers = {element: k for k, element in enumerate(linework.elements)}
        edges = np.flatnonzero(~np.isin(linework.packed.role, _NOT_EDGES))
        self._lines = edges[np.argsort(linework.packed.element[edges], kind="stable")]
        self._starts = np.searchsorted(
            linework.packed.element[self._lines], np.arange(len(linework.elements) + 1)
        )
        self._known: dict[str, ElementCorners | None] = {}

    def of(self, element: str) -> ElementCorners | None:
        """The corners of an element; None where the drawing shows nothing of it."""
        if element not in self._known:
            self._known[element] = self._found(element)
        return self._known[element]

    def _found(self, element: str) -> ElementCorners | None:
        number = self._numbers.get(element)
        if number is None:
            return None
        packed = self._linework.packed
        own = self._lines[self._starts[number] : self._starts[number + 1]]
        lines = [packed.lines[k][:, :2] for k in own.tolist()]
        return _corners(lines) if lines else None


def _corners(lines: list[Floats]) -> ElementCorners:
    """Where lines end, meet or bend, as corners; and the centres of what is round. What has neither has its
    middle."""
    ways: dict[tuple[int, int], set[float]] = defaultdict(set)
    places: dict[tuple[int, int], Point] = {}
    for line in lines:
        for (ax, ay), (bx, by) in zip(line[:-1].tolist(), line[1:].tolist(), strict=True):
            a, b = _key(ax, ay), _key(bx, by)
            if a == b:
                continue
            places.setdefault(a, (ax, ay))
            places.setdefault(b, (bx, by))
            way = float(np.degrees(np.arctan2(by - ay, bx - ax))) % 360
            ways[a].add(round(way, 1) % 360)
            ways[b].add(round(way + 180, 1) % 360)
    sharp = [key for key in places if not _straight_on(ways[key])]
    points = np.array(list(places.values()))
    (left, low), (right, high) = points.min(axis=0).tolist(), points.max(axis=0).tolist()
    for x, y in _apart([centre for line in lines for centre in centres(line.tolist())]):
        # No line leaves a centre, and so it is told from corners.
        if _key(x, y) not in sharp:
            places[_key(x, y)], ways[_key(x, y)] = (x, y), set()
            sharp.append(_key(x, y))
    if not sharp:
        middle = (left + right) / 2, (low + high) / 2
        places[_key(*middle)], ways[_key(*middle)] = middle, set()
        sharp.append(_key(*middle))
    order = sorted(sharp, key=lambda key: (round(places[key][0], 1), places[key][1]))
    told = [tuple(sorted(_apart_ways(ways[key]))) for key in order]
    corners = []
    for k, key in enumerate(order):
        (x, y), like = places[key], [j for j, other in enumerate(told) if alike(told[k], other)]
        reach = tuple(round(value, 2) for value in (x - left, y - low, right - x, high - y))
        corners.append(AnchorCorner(told[k], reach, like.index(k), len(like)))
    number = {key: k for k, key in enumerate(order)}
    between = frozenset(pair for line in lines for pair in _pairs(line, number))
    return ElementCorners(tuple(corners), tuple(places[key] for key in order), between)


def _key(x: float, y: float) -> tuple[int, int]:
    return round(x / SAME), round(y / SAME)


def _apart(points: Sequence[Point]) -> list[Point]:
    """Points without those that another is as good as the same as."""
    kept: list[Point] = []
    for point in points:
        if all(math.dist(point, other) > ON for other in kept):
            kept.append(point)
    return kept


def _apart_ways(ways: set[float]) -> list[float]:
    """Directions without those that differ by rounding alone."""
    kept: list[float] = []
    for way in sorted(ways):
        if all(min((way - other) % 360, (other - way) % 360) > 1.0 for other in kept):
            kept.append(way)
    return kept


def _straight_on(ways: set[float]) -> bool:
    """Whether a line only passes through, or bends as something round does."""
    apart = _apart_ways(ways)
    if len(apart) != 2:
        return False
    return abs(abs((apart[1] - apart[0]) % 360) - 180) < SMOOTH


def _pairs(line: Floats, number: dict[tuple[int, int], int]) -> Iterator[tuple[int, int]]:
    """The straight stretches of a line from corner to corner."""
    start: tuple[int, Point] | None = None
    passed: list[Point] = []
    places = line.tolist()
    if _key(*places[0]) == _key(*places[-1]):
        # What closes may begin in the middle of a straight stretch.
        places += places[1:]
    for x, y in places:
        corner = number.get(_key(x, y))
        if corner is None:
            passed.append((x, y))
            continue
        if start is not None and start[0] != corner and all(_on(p, start[1], (x, y)) for p in passed):
            yield min(start[0], corner), max(start[0], corner)
        start, passed = (corner, (x, y)), []


def _on(p: Point, a: Point, b: Point) -> bool:
    """Whether a point lies on the line through two."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    return abs((p[0] - a[0]) * dy - (p[1] - a[1]) * dx) <= SAME * float(np.hypot(dx, dy))
