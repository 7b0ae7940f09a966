"""What ends lines of annotation: arrows and dots (ISO 128-2: leader lines; ISO 129-1: terminators)."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.annotation.notes import LeaderEnd
from drafting.geometry.boxes import Point
from drafting.render.items import Fill
from drafting.styles.pens import INK, Pen

LEADER_PEN = Pen(0.18)
#: The length and half breadth of an arrow, the radius of a dot, mm.
ARROW, ARROW_HALF, DOT = 3.0, 0.5, 0.7


def arrow(tip: Point, back: Point, layer: str, source: str) -> Fill:
    """An arrow whose tip lies at `tip`, on a line that comes from `back`."""
    length = math.dist(tip, back) or 1.0
    x, y = (back[0] - tip[0]) / length, (back[1] - tip[1]) / length
    base = tip[0] + x * ARROW, tip[1] + y * ARROW
    sides = [(base[0] - y * ARROW_HALF * k, base[1] + x * ARROW_HALF * k) for k in (1, -1)]
    return Fill(((tip, *sides),), INK, layer, source)


def dot(at: Point, layer: str, source: str) -> Fill:
    """A dot about a point."""
    turns = (2 * math.pi * k / 24 for k in range(24))
    ring = tuple((at[0] + DOT * math.cos(a), at[1] + DOT * math.sin(a)) for a in turns)
    return Fill((ring,), INK, layer, source)


def leader_end(end: LeaderEnd, tip: Point, back: Point, layer: str, source: str) -> Iterator[Fill]:
    """What ends a leader: an arrow on a line, a dot within an area."""
    if end == "arrow":
        yield arrow(tip, back, layer, source)
    elif end == "dot":
        yield dot(tip, layer, source)
