"""Measures beside lengths: angles, radii, diameters, arcs, slopes, areas (ISO 129-1; building practice)."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Annotated, ClassVar, Literal, NamedTuple, Self

from pydantic import Field

from drafting.annotation.anchors import SAME, Anchor
from drafting.annotation.dimensions import MAX_WORDS, STYLES, DimensionStyle, StyleName
from drafting.annotation.notes import Offset
from drafting.annotation.piece import BasePiece, Named, need_true_lengths
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED
from drafting.sheets.room_tags import area_text
from drafting.styles.lengths import plain_figure
from drafting.views.spec import AnyView

MeasureOf = Literal["angle", "radius", "diameter", "arc", "slope", "area"]
SlopeIn = Literal["percent", "ratio", "degrees"]
#: What each is called in a sentence, and the least and the most points that it has.
POINTS: Mapping[MeasureOf, tuple[str, int, int]] = {
    "angle": ("angle", 3, 3),
    "radius": ("radius", 3, 3),
    "diameter": ("diameter", 3, 3),
    "arc": ("length of an arc", 3, 3),
    "slope": ("slope", 2, 2),
    "area": ("area", 3, 200),
}
#: Angles that differ by less are the same, degrees; areas, mm2 for each mm of their outline.
SAME_ANGLE = 0.05
#: Three points whose circle is larger than this lie on a straight line, mm.
_STRAIGHT = 1e7


@dataclass(frozen=True)
class Measure(BasePiece):
    """An angle, a radius, a diameter, an arc, a slope or an area, and its figure.

    Attributes:
        of: what it measures.
        points: of an angle its corner, then a point on each side; of a radius, a diameter and an arc three on
            the curve, those of an arc in their order; of a slope its two ends; of an area its outline.
        offset: from `reference` on paper to the middle of the figure, paper mm.
        style: the unit of its figure.
        named: the id of a style of the project that it is lettered in; blank for the usual one of its unit.
        slope_in: how a slope is given.
        override: what is typed over the true figure; blank for the figure.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "measure"

    of: MeasureOf
    points: Annotated[tuple[Anchor, ...], Field(min_length=2, max_length=200)]
    offset: tuple[Offset, Offset] = (0.0, 0.0)
    style: StyleName = "millimetres"
    named: Named = ""
    slope_in: SlopeIn = "percent"
    override: Annotated[str, Field(max_length=MAX_WORDS)] = ""
    kind: Literal["measure"] = "measure"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return self.points

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, points=tuple(anchors))

    @property
    def typed_over(self) -> bool:
        return bool(self.override)

    def changes(self, at: Sequence[Point]) -> str:
        before = figure(self.of, [anchor.at for anchor in self.points])
        now = figure(self.of, at)
        if before is None or now is None:
            return "" if before is now else "what it measures has no figure any more"
        if abs(before - now) < _least_change(self.of, at):
            return ""
        style = STYLES[self.style]
        return f"{words(self, before, style)} is now {words(self, now, style)}"

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        name, least, most = POINTS[self.of]
        if not least <= len(self.points) <= most:
            raise SheetError(f"The {name} has {least} points. Choose them anew.")
        need_true_lengths(view, name)
        if self.of == "slope" and not upright:
            raise SheetError("A slope is measured in elevations and sections, where heights are seen.")
        if figure(self.of, [anchor.at for anchor in self.points]) is None:
            raise SheetError(f"The points of this {name} give none. {_REMEDIES[self.of]}")


_REMEDIES: Mapping[MeasureOf, str] = {
    "angle": "Choose its corner, then a point on each side.",
    "radius": "Choose three points on a curve.",
    "diameter": "Choose three points on a curve.",
    "arc": "Choose its first end, a point on it, and its last end.",
    "slope": "Choose two points that are apart.",
    "area": "Choose the corners of an outline in their order.",
}


class MeasuredCircle(NamedTuple):
    centre: Point
    radius: float


def circle_through(a: Point, b: Point, c: Point) -> MeasuredCircle | None:
    """The circle through three points; None where they lie on a line.

    >>> circle_through((0, 0), (10, 0), (0, 10))
    MeasuredCircle(centre=(5.0, 5.0), radius=7.0710678118654755)
    """
    (bx, by), (cx, cy) = (b[0] - a[0], b[1] - a[1]), (c[0] - a[0], c[1] - a[1])
    twice = 2 * (bx * cy - by * cx)
    if abs(twice) < 1e-9:
        return None
    bb, cc = bx * bx + by * by, cx * cx + cy * cy
    x, y = (cy * bb - by * cc) / twice, (bx * cc - cx * bb) / twice
    radius = math.hypot(x, y)
    return MeasuredCircle((a[0] + x, a[1] + y), radius) if radius < _STRAIGHT else None


def figure(of: MeasureOf, at: Sequence[Point]) -> float | None:
    """What points measure: degrees of an angle; mm of a radius, a diameter and an arc; the rise for one mm of
    a slope; mm2 of an area. None where they measure nothing.

    >>> figure("angle", [(0, 0), (10, 0), (0, 10)]), figure("slope", [(0, 0), (1000, 25)])
    (90.0, 0.025)
    >>> figure("area", [(0, 0), (10, 0), (10, 10), (0, 10)])
    100.0
    """
    if of == "angle":
        return _angle(at)
    if of == "slope":
        (ax, ay), (bx, by) = at[0], at[1]
        return (by - ay) / abs(bx - ax) if abs(bx - ax) >= SAME else None
    if of == "area":
        area = abs(sum(ax * by - bx * ay for (ax, ay), (bx, by) in pairwise((*at, at[0])))) / 2
        return area if area >= 1.0 else None
    circle = circle_through(*at[:3])
    if circle is None:
        return None
    if of == "arc":
        return circle.radius * math.radians(abs(swept(circle, at)[1]))
    return circle.radius * (2 if of == "diameter" else 1)


def swept(circle: MeasuredCircle, at: Sequence[Point]) -> tuple[float, float]:
    """Where an arc from the first point through the second to the third begins, and how far it runs; degrees
    anticlockwise."""
    ways = [math.degrees(math.atan2(y - circle.centre[1], x - circle.centre[0])) for x, y in at[:3]]
    through, whole = (ways[1] - ways[0]) % 360, (ways[2] - ways[0]) % 360
    return ways[0], whole if through <= whole else whole - 360


def sides_of_angle(at: Sequence[Point]) -> tuple[float, float]:
    """Where the first side of an angle runs, and how far it is to the other, the short way; degrees
    anticlockwise."""
    (x, y), a, b = at[0], at[1], at[2]
    first = math.degrees(math.atan2(a[1] - y, a[0] - x))
    return first, (math.degrees(math.atan2(b[1] - y, b[0] - x)) - first + 180) % 360 - 180


def _angle(at: Sequence[Point]) -> float | None:
    if min(math.dist(at[0], at[1]), math.dist(at[0], at[2])) < SAME:
        return None
    by = abs(sides_of_angle(at)[1])
    return by if by >= SAME_ANGLE else None


def _least_change(of: MeasureOf, at: Sequence[Point]) -> float:
    """What of a figure is no change, in its unit."""
    if of == "angle":
        return SAME_ANGLE
    if of == "slope":
        return SAME / max(abs(at[1][0] - at[0][0]), 1.0)
    if of == "area":
        return SAME * sum(math.dist(a, b) for a, b in pairwise((*at, at[0])))
    return SAME


def words(measure: Measure, value: float, style: DimensionStyle) -> str:
    """A figure as it is lettered (ISO 129-1: R and Ø before a radius and a diameter).

    >>> def point(u, v): return Anchor((u, v))
    >>> words(Measure("slope", (point(0, 0), point(1, 0)), slope_in="ratio"), 0.025, STYLES["metres"])
    '1 : 40'
    """
    if measure.of == "angle":
        return f"{plain_figure(value, 1)}°"
    if measure.of == "area":
        return area_text(value, style.unit == "feet")
    if measure.of == "slope":
        steep = abs(value)
        if measure.slope_in == "degrees":
            return f"{plain_figure(math.degrees(math.atan(steep)), 1)}°"
        if measure.slope_in == "ratio" and steep > 0:
            one, other = (1.0, 1 / steep) if steep <= 1 else (steep, 1.0)
            return f"{plain_figure(one, 2)} : {plain_figure(other, 1)}"
        return f"{plain_figure(steep * 100, 1)} %"
    sign = {"radius": "R ", "diameter": "Ø ", "arc": ""}[measure.of]
    return sign + style.words(value)


def reference(of: MeasureOf, at: Sequence[Point]) -> Point:
    """From where a figure's place is measured: the corner of an angle, the centre of a curve, the middle of a
    slope or of an outline.

    >>> reference("slope", [(0, 0), (1000, 100)])
    (500.0, 50.0)
    """
    if of == "angle":
        return at[0]
    if of in ("radius", "diameter", "arc"):
        circle = circle_through(*at[:3])
        return circle.centre if circle else at[0]
    return sum(x for x, _ in at) / len(at), sum(y for _, y in at) / len(at)
