"""Dimensions and spot levels as they are drawn (ISO 129-1; terminators of building practice)."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from drafting.annotation.dimensions import (
    LINES_APART,
    Dimension,
    DimensionStyle,
    Length,
    dimension_lines,
    lettered,
    measured,
)
from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.spot_levels import SpotLevel
from drafting.geometry.boxes import Point
from drafting.render.items import Dimensioned, Fill, FlatItem, Path, Stretch, Text
from drafting.sheets.level_marks import LEVEL_SIZE, LEVEL_TEXT, level_text
from drafting.styles.lettering import text_width
from drafting.styles.pens import INK, PAPER, Pen

LAYER = "Dimensions"
LINE_PEN, STROKE_PEN = Pen(0.18), Pen(0.5)
#: Extension lines run on this far beyond the dimension line, mm.
BEYOND = 2.0
#: The length of an oblique stroke, of an arrow and its half breadth, and the radius of a dot; mm.
STROKE, ARROW, ARROW_HALF, DOT = 3.0, 3.0, 0.5, 0.7
#: From the dimension line to the words above it; beside words; kept clear about them; mm.
ABOVE, BETWEEN, MARGIN = 0.8, 1.2, 0.4
#: How far a spot level's line runs to both sides of its triangle, mm.
LEVEL_LINE = 5.0


@dataclass(frozen=True)
class _Frame:
    """A dimension line on paper: where it lies, and the unit vectors along it and upward as it is read."""

    base: Point
    along: Point
    up: Point

    @property
    def turn(self) -> float:
        """Degrees anticlockwise, as lettering reads from the bottom or from the right."""
        return math.degrees(math.atan2(self.along[1], self.along[0]))

    def at(self, along: float, up: float = 0.0) -> Point:
        return (
            self.base[0] + along * self.along[0] + up * self.up[0],
            self.base[1] + along * self.along[1] + up * self.up[1],
        )

    def to(self, point: Point) -> tuple[float, float]:
        """A point along the line, and how far above it."""
        x, y = point[0] - self.base[0], point[1] - self.base[1]
        return x * self.along[0] + y * self.along[1], x * self.up[0] + y * self.up[1]


def dimension_items(placed: PlacedPiece, dimension: Dimension, source: str) -> Iterator[FlatItem]:
    """Extension lines, the dimension line with its terminators, and the figures above it."""
    found = measured(dimension, placed.location.at)
    if not found.lengths:
        return
    style, points = placed.style, placed.points
    lines = dimension_lines(dimension.arrangement, found)
    # An extension line runs to the furthest line that its point has a length on.
    furthest = {
        k: number for number, line in enumerate(lines) for length in line for k in (length.first, length.last)
    }
    for k, number in furthest.items():
        frame = _frame(dimension, found.way, placed, number)
        along, up = frame.to(points[k])
        if abs(up) > style.gap:
            way = math.copysign(1.0, up)
            far = up - way * style.gap
            if dimension.extension is not None:
                far = way * min(abs(far), dimension.extension + number * LINES_APART)
            yield Path((frame.at(along, far), frame.at(along, -way * BEYOND)), LINE_PEN, LAYER, source)
    start = 0
    for number, line in enumerate(lines):
        frame = _frame(dimension, found.way, placed, number)
        yield from _line_items(dimension, line, frame, start, placed, source)
        start += len(line)


def _line_items(
    dimension: Dimension,
    line: Sequence[Length],
    frame: _Frame,
    start: int,
    placed: PlacedPiece,
    source: str,
) -> Iterator[FlatItem]:
    """One dimension line with its terminators and figures; `start` lengths stand on lines before it."""
    style, points = placed.style, placed.points
    along = {k: frame.to(points[k])[0] for length in line for k in (length.first, length.last)}
    # Read from the right, the chain runs the other way.
    stops = sorted(along, key=lambda k: along[k])
    yield Path((frame.at(along[stops[0]]), frame.at(along[stops[-1]])), LINE_PEN, LAYER, source)
    for k in stops:
        yield from _terminator(frame, along[k], style, source, inward=1 if k == stops[0] else -1)
    stretches: list[tuple[float, float, str, tuple[float, float]]] = []
    for each in lettered(dimension, line, style, start):
        low, high = sorted((along[each.first], along[each.last]))
        shift = dimension.shifts[each.length] if each.length < len(dimension.shifts) else (0.0, 0.0)
        stretches.append((low, high, each.words, shift))
    yield from _figures(frame, sorted(stretches), style, source)


def dimensioned(placed: PlacedPiece, dimension: Dimension, parts: list[FlatItem]) -> Dimensioned:
    """A dimension with its lengths, for outputs that have dimensions of their own."""
    found, points = measured(dimension, placed.location.at), placed.points
    stretches, start = [], 0
    for number, line in enumerate(dimension_lines(dimension.arrangement, found)):
        base = _frame(dimension, found.way, placed, number).base
        stretches += [
            Stretch(points[each.first], points[each.last], base, each.words)
            for each in lettered(dimension, line, placed.style, start)
        ]
        start += len(line)
    viewport = placed.viewport
    return Dimensioned(
        tuple(parts),
        tuple(stretches),
        round(_frame(dimension, found.way, placed).turn, 6),
        float(viewport.scale.ratio) if viewport else 1.0,
        placed.style.text,
        LAYER,
        viewport.id if viewport else "",
        placed.style.gap,
        placed.style.terminator,
    )


def _frame(dimension: Dimension, way: Point, placed: PlacedPiece, number: int = 0) -> _Frame:
    """Where a dimension line of a dimension lies, the nearest to its points first."""
    turn = math.radians(placed.turn)
    cos, sin = math.cos(turn), math.sin(turn)
    x, y = way[0] * cos - way[1] * sin, way[0] * sin + way[1] * cos
    first = placed.points[0]
    offset = dimension.offset + math.copysign(number * LINES_APART, dimension.offset)
    base = first[0] - y * offset, first[1] + x * offset
    # Lettering reads from the bottom, or from the right where the line is upright (ISO 129-1).
    if x < -1e-9 or (abs(x) <= 1e-9 and y < 0):
        x, y = -x, -y
    return _Frame(base, (x, y), (-y, x))


def _terminator(
    frame: _Frame, along: float, style: DimensionStyle, source: str, inward: int
) -> Iterator[FlatItem]:
    if style.terminator == "stroke":
        half = STROKE / 2 / math.sqrt(2)
        ends = frame.at(along - half, -half), frame.at(along + half, half)
        yield Path(ends, STROKE_PEN, LAYER, source)
    elif style.terminator == "arrow":
        back = along + inward * ARROW
        corners = frame.at(along), frame.at(back, ARROW_HALF), frame.at(back, -ARROW_HALF)
        yield Fill((corners,), INK, LAYER, source)
    else:
        turns = (2 * math.pi * k / 24 for k in range(24))
        ring = tuple(frame.at(along + DOT * math.cos(a), DOT * math.sin(a)) for a in turns)
        yield Fill((ring,), INK, LAYER, source)


def _figures(
    frame: _Frame,
    stretches: Sequence[tuple[float, float, str, tuple[float, float]]],
    style: DimensionStyle,
    source: str,
) -> Iterator[FlatItem]:
    """The figures over their lengths. One that has no room there is raised above its neighbours; one at an
    end goes beyond it; one that was moved by hand lies where it was put."""
    taken: list[tuple[int, float, float]] = []
    lowest = ABOVE if style.place == "above" else -style.text / 2
    for k, (low, high, words, (aside, raised)) in enumerate(stretches):
        wide = text_width(words, style.text)
        middle = (low + high) / 2
        if wide + BETWEEN > high - low and len(stretches) > 1 and k in (0, len(stretches) - 1):
            # Beside the end of the chain there is room.
            middle = low - wide / 2 - STROKE if k == 0 else high + wide / 2 + STROKE
        tier = 0
        by_hand = aside or raised
        while not by_hand and any(
            t == tier and left < middle + wide / 2 + BETWEEN and middle - wide / 2 - BETWEEN < right
            for t, left, right in taken
        ):
            tier += 1
        if not by_hand:
            taken.append((tier, middle - wide / 2, middle + wide / 2))
        up = lowest + tier * (style.text + ABOVE)
        middle, up = middle + aside, up + raised
        yield _ground(frame, middle, up, wide, style.text, source)
        at = frame.at(middle, up)
        yield Text(
            at,
            words,
            style.text,
            INK,
            anchor="middle",
            turn=round(frame.turn, 6),
            layer=LAYER,
            viewport=source,
        )


def _ground(frame: _Frame, middle: float, up: float, wide: float, size: float, source: str) -> Fill:
    """What lies under a figure is kept away, so that it reads."""
    left, right = middle - wide / 2 - MARGIN, middle + wide / 2 + MARGIN
    low, high = up - MARGIN, up + size + MARGIN
    ring = frame.at(left, low), frame.at(right, low), frame.at(right, high), frame.at(left, high)
    return Fill((ring,), PAPER, LAYER, source)


def spot_level_items(placed: PlacedPiece, level: SpotLevel, source: str) -> Iterator[FlatItem]:
    """A short line at the height, a triangle that stands on it, and the figure above."""
    turn = math.radians(placed.turn)
    frame = _Frame(placed.points[0], (math.cos(turn), math.sin(turn)), (-math.sin(turn), math.cos(turn)))
    tip = level.offset
    words = level.override or level_text(placed.location.at[0][1] + placed.zero, level.feet)
    wide = text_width(words, LEVEL_TEXT)
    begin, end = min(0.0, tip - LEVEL_LINE), max(0.0, tip + LEVEL_SIZE + wide)
    if level.extension is not None:
        left, right = tip - LEVEL_SIZE / 2, tip + LEVEL_SIZE + wide
        begin = max(0.0, left - level.extension) if tip > 0 else left
        end = right if tip > 0 else min(0.0, right + level.extension)
    yield Path((frame.at(begin), frame.at(end)), LINE_PEN, LAYER, source)
    high, half = LEVEL_SIZE * 0.8, LEVEL_SIZE / 2
    corners = frame.at(tip), frame.at(tip + half, high), frame.at(tip - half, high)
    yield Fill((corners,), PAPER, LAYER, source)
    yield Path(corners, LINE_PEN, LAYER, source, closed=True)
    middle = tip + LEVEL_SIZE + wide / 2
    yield _ground(frame, middle, ABOVE, wide, LEVEL_TEXT, source)
    at = frame.at(middle, ABOVE)
    yield Text(
        at,
        words,
        LEVEL_TEXT,
        INK,
        anchor="middle",
        turn=round(frame.turn, 6),
        layer=LAYER,
        viewport=source,
    )
