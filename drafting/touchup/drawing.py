"""A drawing as touch-ups look at it: its lines element by element, and what lies along a line or a circle."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import NamedTuple

import numpy as np
from shapely import LineString, distance, polygonize, union_all
from shapely import points as shapely_points

from drafting.annotation.anchors import ON, Anchor, followed
from drafting.annotation.piece import CornersOf
from drafting.geometry.boxes import Point
from drafting.geometry.polylines import Floats, Longs
from drafting.linework.model import Linework, Role
from drafting.styles.redrawn import Part, Run, runs_of

#: What is covered of a line but for less than this is all of it; in the numbers of its points.
ALL = 1e-6
#: A circle's lines lie at its radius but for this share of it, as they are straight.
ROUND = 0.02
#: Lines that meet do so within this; mm.
GRID = 0.01

#: From the points of a line (s + 1, 2): of each of its segments where what is chosen begins and ends, as
#: shares (s, 2); the same twice for nothing.
Covered = Callable[[Floats], Floats]


class Chosen(NamedTuple):
    """What of a drawing is chosen: whole lines, parts of lines, cut regions; and what is to be added, with
    its role and layer."""

    whole: tuple[Run, ...] = ()
    parts: tuple[Part, ...] = ()
    areas: tuple[Run, ...] = ()
    added: tuple[tuple[Point, Point], ...] = ()
    role: Role | None = None
    layer: str = ""

    def __bool__(self) -> bool:
        return bool(self.whole or self.parts or self.areas or self.added)


NOTHING = Chosen()


class TouchedDrawing:
    """A drawing of a kind of view, and the corners of its elements by which anchors are found again."""

    def __init__(self, linework: Linework, corners_of: CornersOf, view_kind: str = "") -> None:
        self.linework, self.corners_of, self.view_kind = linework, corners_of, view_kind

    @cached_property
    def _numbers(self) -> dict[str, int]:
        return {element: k for k, element in enumerate(self.linework.elements)}

    @cached_property
    def lengths(self) -> Floats:
        """(m,) the length of each line, mm."""
        lines = self.linework.packed.lines
        steps = np.hypot(*np.diff(lines.points[:, :2], axis=0).T)
        along = np.concatenate([[0.0], np.cumsum(steps)])
        return np.asarray(along[lines.starts[1:] - 1] - along[lines.starts[:-1]])

    def lines_of(self, element: str) -> Longs:
        """The numbers of an element's lines, rising."""
        number = self._numbers.get(element, -1)
        return np.flatnonzero(self.linework.packed.element == number)

    def areas_of(self, element: str, material: str) -> Longs:
        """The numbers of what is cut of an element; of one of its materials, where that is said."""
        regions = self.linework.packed_regions
        own = regions.element == self._numbers.get(element, -1)
        if material:
            named = [k for k, name in enumerate(self.linework.materials) if name == material]
            own &= np.isin(regions.material, named)
        return np.flatnonzero(own)

    def place(self, anchor: Anchor) -> Point | None:
        """Where an anchor lies now; None where what it is on is gone."""
        found = followed(anchor, self.corners_of(anchor.element) if anchor.element else None)
        return found.at if found.state == "followed" else None

    def along(self, element: str, a: Point, b: Point) -> Chosen:
        """What an element draws along the straight line from `a` to `b`."""
        start, way = np.array(a), np.subtract(b, a)
        length = float(np.hypot(*way))
        if length < ON:
            return NOTHING
        way = way / length

        def covered(points: Floats) -> Floats:
            away = points - start
            off = np.abs(away[:, 0] * way[1] - away[:, 1] * way[0])
            at = away @ way
            first, second = at[:-1], at[1:]
            # Where each segment enters and leaves the stretch, as shares of the segment.
            step = np.where(np.abs(second - first) < ALL, 1.0, second - first)
            ends = np.sort(np.stack([(0.0 - first) / step, (length - first) / step], 1), axis=1).clip(0, 1)
            beside = (off[:-1] > ON) | (off[1:] > ON) | (np.abs(second - first) < ALL)
            ends[beside | (np.diff(ends, axis=1)[:, 0] * np.abs(step) < ON / 4)] = 0.0
            return np.asarray(ends)

        return self._chosen(element, covered)

    def around(self, element: str, centre: Point, radius: float) -> Chosen:
        """What an element draws at a distance from a point."""

        def covered(points: Floats) -> Floats:
            off = np.abs(np.hypot(*(points - np.array(centre)).T) - radius) < max(ON, ROUND * radius)
            on = off[:-1] & off[1:]
            return np.stack([np.zeros(len(on)), on.astype(float)], axis=1)

        return self._chosen(element, covered)

    def within_outline(self, element: str) -> Chosen:
        """An element's lines but those of its outline. Of what encloses nothing, nothing."""
        lines = [self.linework.packed.lines[k][:, :2] for k in self.lines_of(element).tolist()]
        # Lines are divided where they meet, or they would enclose nothing.
        crossed = union_all([LineString(line) for line in lines], grid_size=GRID)
        outline = union_all([face.buffer(ON / 4) for face in polygonize([crossed]).geoms]).boundary
        if outline is None or outline.is_empty:
            return NOTHING

        def covered(points: Floats) -> Floats:
            middles = (points[:-1] + points[1:]) / 2
            inside = distance(shapely_points(middles), outline) > ON
            return np.stack([np.zeros(len(inside)), inside.astype(float)], axis=1)

        return self._chosen(element, covered)

    def _chosen(self, element: str, covered: Covered) -> Chosen:
        """Of an element's lines what is covered of each of their segments."""
        whole: list[int] = []
        parts: list[Part] = []
        for line in self.lines_of(element).tolist():
            points = self.linework.packed.lines[line][:, :2]
            spans = _joined(covered(points))
            if spans == [(0.0, float(len(points) - 1))]:
                whole.append(line)
            else:
                parts += [(line, begin, end) for begin, end in spans]
        return Chosen(runs_of(whole), tuple(parts))


def _joined(shares: Floats) -> list[tuple[float, float]]:
    """Shares of segments (s, 2) as spans along their line, joined where one goes on in the next."""
    spans: list[tuple[float, float]] = []
    for k, (begin, end) in enumerate(shares.tolist()):
        if end - begin <= ALL:
            continue
        if spans and k + begin - spans[-1][1] <= ALL:
            spans[-1] = spans[-1][0], round(k + end, 6)
        else:
            spans.append((round(k + begin, 6), round(k + end, 6)))
    return spans
