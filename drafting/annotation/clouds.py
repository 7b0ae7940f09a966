"""Clouds: rings of arcs about what has changed, with the revision that it changed in."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.piece import BasePiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point
from drafting.schema import CLOSED, Flag
from drafting.views.spec import AnyView

#: How wide one arc is, about; no cloud has a shorter side; paper mm.
ARC, MIN_SIDE = 6.0, 6.0
#: Points of one arc, and how far it bulges for its width.
_STEPS, _BULGE = 8, 0.3


@dataclass(frozen=True)
class Cloud(BasePiece):
    """A ring about a part of a sheet.

    Attributes:
        first, last: two opposite corners.
        revision: what its mark says; it is shown while that is the newest of the sheet.
        kept: whether it stays after that.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "cloud"

    first: Anchor
    last: Anchor
    revision: Annotated[str, Field(max_length=20)] = ""
    kept: Flag = False
    kind: Literal["cloud"] = "cloud"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return self.first, self.last

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, first=anchors[0], last=anchors[1])

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        if self.first.at == self.last.at:
            raise SheetError("The corners of this cloud lie in one place. Draw it about something.")


def cloud_box(first: Point, last: Point) -> Box:
    """What a cloud is drawn about, from its two corners on paper, mm; never too small for its arcs.

    >>> cloud_box((10.0, 10.0), (12.0, 30.0))
    Box(x=8.0, y=10.0, width=6.0, height=20.0)
    """
    x, y = min(first[0], last[0]), min(first[1], last[1])
    width, height = abs(first[0] - last[0]), abs(first[1] - last[1])
    wide, high = max(width, MIN_SIDE), max(height, MIN_SIDE)
    return Box(x - (wide - width) / 2, y - (high - height) / 2, wide, high)


def cloud_ring(box: Box) -> tuple[Point, ...]:
    """The corners of a ring of arcs about a box, which bulge outward; paper mm."""
    return ring_of_arcs(box.corners)


def ring_of_arcs(corners: Sequence[Point]) -> tuple[Point, ...]:
    """The corners of a ring of arcs along an outline, which bulge to its outside; paper mm.

    >>> max(x for x, _ in ring_of_arcs([(0, 0), (0, 12), (12, 12), (12, 0)])) > 12
    True
    """
    ring: list[Point] = []
    pairs = list(zip(corners, (*corners[1:], corners[0]), strict=True))
    if sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in pairs) < 0:  # with the clock
        pairs = [(end, start) for start, end in reversed(pairs)]
    for (x0, y0), (x1, y1) in pairs:
        length = math.dist((x0, y0), (x1, y1))
        if not length:
            continue
        count = max(1, round(length / ARC))
        along, out = ((x1 - x0) / length, (y1 - y0) / length), ((y1 - y0) / length, (x0 - x1) / length)
        arc = length / count
        for k in range(count):
            for step in range(_STEPS):
                t = step / _STEPS
                by, bulge = (k + t) * arc, 4 * _BULGE * arc * t * (1 - t)
                ring.append((x0 + along[0] * by + out[0] * bulge, y0 + along[1] * by + out[1] * bulge))
    return tuple(ring)
