"""Angles, radii, diameters, arcs, slopes and areas as they are drawn (ISO 129-1)."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.annotation.dimensions import DimensionStyle
from drafting.annotation.measures import (
    Measure,
    MeasuredCircle,
    circle_through,
    figure,
    reference,
    sides_of_angle,
    swept,
    words,
)
from drafting.annotation.pieces import PlacedPiece
from drafting.geometry.boxes import Point
from drafting.render.dimension_items import BEYOND, LAYER, LINE_PEN, MARGIN
from drafting.render.items import Fill, FlatItem, Path, Text
from drafting.render.leader_items import arrow
from drafting.styles.lettering import text_width
from drafting.styles.patterns import PATTERNS
from drafting.styles.pens import INK, PAPER, Pen

#: The line about an area.
OUTLINE = Pen(0.18, pattern=PATTERNS["dashed"])
#: A dimension line that is an arc has no smaller radius, mm; steps of its whole circle.
MIN_ARC, _ROUND = 4.0, 120
#: The sign above the figure of an arc: its width and its rise, mm.
_SIGN, _RISE = 3.0, 0.9


def measure_items(placed: PlacedPiece, measure: Measure, source: str) -> Iterator[FlatItem]:
    """The lines of a measure, and its figure on paper of its own."""
    value = figure(measure.of, placed.location.at)
    if value is None:
        return
    x, y = placed.to_paper(reference(measure.of, placed.location.at))
    middle = x + measure.offset[0], y + measure.offset[1]
    draw = {
        "angle": _angle, "arc": _arc, "radius": _radius, "diameter": _radius,
        "slope": _slope, "area": _area,
    }[measure.of]  # fmt: skip
    yield from draw(placed, measure, middle, source)
    yield from _figure(measure, _said(placed, measure, value), placed.style, middle, source)


def _said(placed: PlacedPiece, measure: Measure, value: float) -> str:
    return measure.override or words(measure, value, placed.style)


def _figure(
    measure: Measure, text: str, style: DimensionStyle, middle: Point, source: str
) -> Iterator[FlatItem]:
    size = style.text
    wide = text_width(text, size)
    x, y = middle
    left, right = x - wide / 2 - MARGIN, x + wide / 2 + MARGIN
    low, high = y - size / 2 - MARGIN, y + size / 2 + MARGIN
    if measure.of == "arc":
        high += _RISE + MARGIN
    yield Fill((((left, low), (right, low), (right, high), (left, high)),), PAPER, LAYER, source)
    yield Text((x, y - size / 2), text, size, INK, anchor="middle", layer=LAYER, viewport=source)
    if measure.of == "arc":
        foot = y + size / 2 + MARGIN
        turns = (math.pi * k / 12 for k in range(13))
        sign = tuple((x - math.cos(a) * _SIGN / 2, foot + math.sin(a) * _RISE) for a in turns)
        yield Path(sign, LINE_PEN, LAYER, source)


def _angle(placed: PlacedPiece, measure: Measure, middle: Point, source: str) -> Iterator[FlatItem]:
    start, by = sides_of_angle(placed.location.at)
    corner, *sides = placed.points
    radius = max(math.dist(corner, middle), MIN_ARC)
    yield from _curved(MeasuredCircle(corner, radius), start + placed.turn, by, source)
    for side in sides:
        yield from _extension(corner, side, radius, placed.style.gap, source)


def _arc(placed: PlacedPiece, measure: Measure, middle: Point, source: str) -> Iterator[FlatItem]:
    at = placed.location.at
    circle = circle_through(*at[:3])
    if circle is None:
        return
    start, by = swept(circle, at)
    centre = placed.to_paper(circle.centre)
    radius = max(math.dist(centre, middle), MIN_ARC)
    yield from _curved(MeasuredCircle(centre, radius), start + placed.turn, by, source)
    for end in (placed.points[0], placed.points[2]):
        yield from _extension(centre, end, radius, placed.style.gap, source)


def _curved(circle: MeasuredCircle, start: float, by: float, source: str) -> Iterator[FlatItem]:
    """A dimension line along a circle, with an arrow at each end."""
    steps = max(2, math.ceil(abs(by) / 360 * _ROUND))
    line = [_on(circle, start + by * k / steps) for k in range(steps + 1)]
    yield Path(tuple(line), LINE_PEN, LAYER, source)
    # An arrow lies along the chord that is as long as it.
    reach = math.degrees(3.0 / circle.radius)
    for at, way in ((start, 1.0), (start + by, -1.0)):
        back = _on(circle, at + math.copysign(reach, by) * way)
        yield arrow(_on(circle, at), back, LAYER, source)


def _on(circle: MeasuredCircle, way: float) -> Point:
    turn = math.radians(way)
    (x, y), radius = circle
    return x + radius * math.cos(turn), y + radius * math.sin(turn)


def _extension(centre: Point, point: Point, radius: float, gap: float, source: str) -> Iterator[FlatItem]:
    """A line from what is measured to a dimension line that is an arc about `centre`."""
    there = math.dist(centre, point)
    if abs(there - radius) <= gap:
        return
    x, y = (point[0] - centre[0]) / there, (point[1] - centre[1]) / there
    way = math.copysign(1.0, radius - there)
    near, far = there + way * gap, radius + way * BEYOND
    ends = (centre[0] + x * near, centre[1] + y * near), (centre[0] + x * far, centre[1] + y * far)
    yield Path(ends, LINE_PEN, LAYER, source)


def _radius(placed: PlacedPiece, measure: Measure, middle: Point, source: str) -> Iterator[FlatItem]:
    circle = circle_through(*placed.location.at[:3])
    if circle is None:
        return
    centre, radius = placed.to_paper(circle.centre), circle.radius * placed.ratio
    away = math.dist(centre, middle)
    x, y = ((middle[0] - centre[0]) / away, (middle[1] - centre[1]) / away) if away > 1e-6 else (1.0, 0.0)
    tip = centre[0] + x * radius, centre[1] + y * radius
    back = centre
    if measure.of == "diameter":
        back = centre[0] - x * radius, centre[1] - y * radius
        yield arrow(back, centre, LAYER, source)
    outside = away > radius
    far = middle if outside else tip
    yield Path((back, far), LINE_PEN, LAYER, source)
    # From outside, the arrow of a radius points inward, and its line still comes from the centre.
    yield arrow(tip, middle if outside and measure.of == "radius" else centre, LAYER, source)


def _slope(placed: PlacedPiece, measure: Measure, middle: Point, source: str) -> Iterator[FlatItem]:
    """An arrow down the slope; it stands off the slope itself as far as its figure lets it."""
    (_, av), (_, bv) = placed.location.at[:2]
    high, low = placed.points if av >= bv else placed.points[::-1]
    length = math.dist(high, low)
    across = (high[1] - low[1]) / length, (low[0] - high[0]) / length
    off = (middle[0] - (high[0] + low[0]) / 2) * across[0] + (middle[1] - (high[1] + low[1]) / 2) * across[1]
    size = placed.style.text
    wide = text_width(_said(placed, measure, figure(measure.of, placed.location.at) or 0.0), size)
    room = (wide * abs(across[0]) + size * abs(across[1])) / 2 + MARGIN
    by = math.copysign(max(abs(off) - room, 0.0), off)
    high, low = ((x + across[0] * by, y + across[1] * by) for x, y in (high, low))
    yield Path((high, low), LINE_PEN, LAYER, source)
    yield arrow(low, high, LAYER, source)


def _area(placed: PlacedPiece, measure: Measure, middle: Point, source: str) -> Iterator[FlatItem]:
    yield Path(placed.points, OUTLINE, LAYER, source, closed=True)
