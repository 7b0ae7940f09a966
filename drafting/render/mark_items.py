"""Marks, levels, scale bars and north points as they are drawn (ISO 128-3 for section lines and their
arrows)."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from itertools import pairwise

from shapely import LinearRing
from shapely import Point as ShapelyPoint

from drafting.geometry.boxes import Point
from drafting.render.items import Fill, Path, Text
from drafting.sheets.grid_marks import GRID_BUBBLE, GridMark
from drafting.sheets.level_marks import LEVEL_NAME, LEVEL_SIZE, LEVEL_TEXT, Level
from drafting.sheets.reference_marks import BUBBLE, THICK, Mark
from drafting.sheets.scale import Scale
from drafting.styles.lettering import fit, text_width
from drafting.styles.pens import INK, PAPER, Pen

LAYER = "Marks"
#: ISO 128-2: long dash and dot, in line widths.
_CHAIN = (24.0, 3.0, 0.5, 3.0)
LINE_PEN = Pen(0.25, pattern=_CHAIN)
THICK_PEN, BUBBLE_PEN = Pen(0.7), Pen(0.25)
OUTLINE_PEN = Pen(0.35, pattern=(12.0, 3.0))
LEADER_PEN = Pen(0.18)
GRID_PEN, GRID_LAYER = Pen(0.13, pattern=_CHAIN), "Grid"
#: How long the line at a jog is at each of its ends; mm.
JOG = 12.0
#: How far an arrow reaches beyond its bubble; mm.
ARROW = 2.6
NUMBER, SHEET = 2.5, 2.0
#: What stands in the bubble of a view that is not placed yet.
NOWHERE = "–"

#: Cosine and sine of the corners of a circle as a polygon.
_AROUND = tuple((math.cos(2 * math.pi * k / 72), math.sin(2 * math.pi * k / 72)) for k in range(72))

Item = Path | Fill | Text


def mark_items(marks: Iterable[Mark], source: str) -> Iterator[Item]:
    for mark in marks:
        if mark.kind == "section":
            if mark.through:
                yield Path(mark.line, LINE_PEN, LAYER, source)
            parts = list(_thick_parts(mark.line))
            # An end without a bubble is not marked.
            for piece in parts if len(mark.bubbles) > 1 else parts[:1]:
                yield Path(tuple(piece), THICK_PEN, LAYER, source)
        elif mark.kind == "jog":
            # Through all that is drawn it would be taken for a part of it.
            for end, inner in (mark.line, mark.line[::-1]):
                share = JOG / math.dist(end, inner)
                to = end[0] + (inner[0] - end[0]) * share, end[1] + (inner[1] - end[1]) * share
                yield Path((end, to), LINE_PEN, LAYER, source)
        elif mark.kind == "detail":
            yield Path(mark.line, OUTLINE_PEN, LAYER, source, closed=True)
            near = _nearest(mark.line, mark.bubbles[0])
            if math.dist(near, mark.bubbles[0]) > BUBBLE:
                yield Path((near, mark.bubbles[0]), LEADER_PEN, LAYER, source)
        for bubble in mark.bubbles:
            yield from _bubble(bubble, mark, source)


def _nearest(ring: tuple[Point, ...], to: Point) -> Point:
    """The point of a closed outline that is nearest to another."""
    outline = LinearRing(ring)
    at = outline.interpolate(outline.project(ShapelyPoint(to)))
    return float(at.x), float(at.y)


def _thick_parts(line: tuple[Point, ...]) -> Iterator[list[Point]]:
    """The ends and corners of a section's line, which are drawn wide."""

    def towards(a: Point, b: Point) -> Point:
        share = min(THICK, math.dist(a, b) / 3) / math.dist(a, b)
        return a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share

    yield [line[0], towards(line[0], line[1])]
    for before, corner, after in zip(line, line[1:], line[2:], strict=False):
        yield [towards(corner, before), corner, towards(corner, after)]
    yield [towards(line[-1], line[-2]), line[-1]]


def _ring(at: Point, radius: float) -> tuple[Point, ...]:
    """A circle as a polygon of 72 sides."""
    x, y = at
    return tuple((x + radius * cos, y + radius * sin) for cos, sin in _AROUND)


def _bubble(at: Point, mark: Mark, source: str) -> Iterator[Item]:
    """A circle with the drawing's number above and the sheet's below, and an arrow on the side that is looked
    to."""
    x, y = at
    if mark.sight:
        sx, sy = mark.sight
        reach = BUBBLE + ARROW
        # The arrow's sides touch the circle.
        half = BUBBLE * math.sqrt(reach**2 - BUBBLE**2) / reach
        base = BUBBLE**2 / reach
        tip = (x + sx * reach, y + sy * reach)
        sides = [(x + sx * base - sy * half * k, y + sy * base + sx * half * k) for k in (1, -1)]
        yield Fill(((tip, *sides),), INK, LAYER, source)
    ring = _ring(at, BUBBLE)
    yield Fill((ring,), PAPER, LAYER, source)
    yield Path(ring, BUBBLE_PEN, LAYER, source, closed=True)
    yield Path(((x - BUBBLE, y), (x + BUBBLE, y)), BUBBLE_PEN, LAYER, source)
    room = 2 * BUBBLE - 2.4
    for words, size, base_line, bold in (
        (mark.reference.drawing or NOWHERE, NUMBER, y + 1.2, True),
        (mark.reference.sheet or NOWHERE, SHEET, y - 1.2 - SHEET, False),
    ):
        text, fitted = fit(words, size, room, bold)
        yield Text(
            (x, base_line), text, fitted, INK, anchor="middle", bold=bold, layer=LAYER, viewport=source
        )


def grid_items(marks: Iterable[GridMark], source: str) -> Iterator[Item]:
    """Thin chain lines with their names in bubbles (ISO 128-2: axes)."""
    for mark in marks:
        yield Path(mark.line, GRID_PEN, GRID_LAYER, source)
        ring = _ring(mark.bubble, GRID_BUBBLE)
        yield Fill((ring,), PAPER, GRID_LAYER, source)
        yield Path(ring, BUBBLE_PEN, GRID_LAYER, source, closed=True)
        text, size = fit(mark.name, NUMBER, 2 * GRID_BUBBLE - 1.6)
        at = mark.bubble[0], mark.bubble[1] - size / 2
        yield Text(at, text, size, INK, anchor="middle", layer=GRID_LAYER, viewport=source)


def level_items(levels: Iterable[Level], source: str) -> Iterator[Item]:
    """Beside the building a short line at a storey's level, and on it a triangle, the height and the name."""
    for level in levels:
        begin = level.right - level.reach if level.on_right else level.left
        yield Path(((begin, level.y), (begin + level.reach, level.y)), LEADER_PEN, LAYER, source)
        x = begin + LEVEL_SIZE
        up = level.y + LEVEL_SIZE * 0.8
        triangle = ((x, level.y), (x + LEVEL_SIZE / 2, up), (x - LEVEL_SIZE / 2, up))
        yield Path(triangle, LEADER_PEN, LAYER, source, closed=True)
        start = x + LEVEL_SIZE
        yield from _lettered((start, level.y + 0.8), level.height, LEVEL_TEXT, source)
        if level.beside:
            name = start + text_width(level.height, LEVEL_TEXT) + 1.0, level.y + 0.8
        else:
            name = begin + 1.0, level.y - 0.8 - LEVEL_NAME
        yield from _lettered(name, level.name, LEVEL_NAME, source)


def _lettered(at: Point, text: str, size: float, source: str) -> Iterator[Item]:
    """Words on a drawing, with what lies under them kept away so that they read."""
    x, y = at
    wide, margin = text_width(text, size), 0.4
    ground = [
        (x - margin, y - margin),
        (x + wide + margin, y - margin),
        (x + wide + margin, y + size + margin),
        (x - margin, y + size + margin),
    ]
    yield Fill((tuple(ground),), PAPER, LAYER, source)
    yield Text(at, text, size, INK, layer=LAYER, viewport=source)


#: A scale bar is about as long as this on paper; mm.
BAR, BAR_HEIGHT, BAR_TEXT = 45.0, 1.5, 1.8
#: What one of its four parts may count; two of them make a whole figure.
_STEPS = (0.5, 1, 2, 2.5, 5, 10, 20, 25, 50, 100, 200, 250, 500)
_FOOT = 304.8


def bar_lengths(scale: Scale) -> tuple[list[float], str]:
    """The real lengths (mm) that a scale bar counts from zero, at even steps, and the unit they are lettered
    in."""
    real = BAR / float(scale.ratio)
    units = ((_FOOT, "ft"), (25.4, "in")) if scale.feet else ((1000.0, "m"), (10.0, "cm"))
    size, name = next(((s, n) for s, n in units if real >= 2 * s), units[-1])
    step = max((s for s in _STEPS if s * 4 * size <= real * 1.2), default=_STEPS[0])
    return [step * k * size for k in range(5)], name


def scale_bar_items(at: Point, scale: Scale, source: str) -> Iterator[Item]:
    """A bar that is true however the sheet is reduced: black and white by turns, from `at` to the right."""
    lengths, unit = bar_lengths(scale)
    ratio = float(scale.ratio)
    size = {"m": 1000.0, "cm": 10.0, "ft": _FOOT, "in": 25.4}[unit]
    x, y = at
    ends = [x + length * ratio for length in lengths]
    for k, (a, b) in enumerate(pairwise(ends)):
        corners = ((a, y), (b, y), (b, y + BAR_HEIGHT), (a, y + BAR_HEIGHT))
        if k % 2 == 0:
            yield Fill((corners,), INK, LAYER, source)
        yield Path(corners, LEADER_PEN, LAYER, source, closed=True)
    for k, (end, length) in enumerate(zip(ends, lengths, strict=True)):
        if k in (0, 2, 4):
            figure = f"{length / size:g}" + (f" {unit}" if k == 4 else "")
            yield Text(
                (end, y + BAR_HEIGHT + 0.8),
                figure,
                BAR_TEXT,
                INK,
                anchor="middle",
                layer=LAYER,
                viewport=source,
            )


#: Radius of a north point's circle; mm.
NORTH = 4.5


def north_items(at: Point, way: Point, source: str) -> Iterator[Item]:
    """A circle with a needle to north, its right half dark, and an N beyond its point."""
    x, y = at
    nx, ny = way
    yield Path(_ring(at, NORTH), LEADER_PEN, LAYER, source, closed=True)
    tip, tail = (x + nx * NORTH, y + ny * NORTH), (x - nx * NORTH * 0.6, y - ny * NORTH * 0.6)
    foot = (x - nx * NORTH, y - ny * NORTH)
    right = (foot[0] + ny * NORTH * 0.45 + nx * 0.6, foot[1] - nx * NORTH * 0.45 + ny * 0.6)
    left = (foot[0] - ny * NORTH * 0.45 + nx * 0.6, foot[1] + nx * NORTH * 0.45 + ny * 0.6)
    yield Fill(((tip, right, tail),), INK, LAYER, source)
    yield Path((tip, right, tail, left), LEADER_PEN, LAYER, source, closed=True)
    out = NORTH + 1.9
    middle = (x + nx * out, y + ny * out - 1.0)
    yield Text(middle, "N", 2.0, INK, anchor="middle", bold=True, layer=LAYER, viewport=source)


def bar_width(scale: Scale) -> float:
    """How far a scale bar runs on paper with its lettering, mm."""
    lengths, unit = bar_lengths(scale)
    return lengths[-1] * float(scale.ratio) + text_width(f"00 {unit}", BAR_TEXT)
