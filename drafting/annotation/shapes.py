"""Shapes that are drawn: lines, arcs, circles, ellipses, rectangles, smooth curves; open, closed, filled."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self, get_args

import numpy as np
from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.measures import circle_through, swept
from drafting.annotation.piece import BasePiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Colour, Flag, Number
from drafting.styles.hatches import HatchName
from drafting.styles.patterns import PatternName
from drafting.styles.pens import INK, Percent, Width
from drafting.views.spec import AnyView

Form = Literal["line", "rectangle", "circle", "arc", "ellipse", "curve"]
FORMS: tuple[Form, ...] = get_args(Form)
#: The least and the most points of each form.
FORM_POINTS: Mapping[Form, tuple[int, int]] = {
    "line": (2, 500),
    "rectangle": (2, 2),
    "circle": (2, 2),
    "arc": (3, 3),
    "ellipse": (3, 3),
    "curve": (3, 500),
}
#: Steps of a whole circle, and of a curve from point to point.
_ROUND, _BETWEEN = 96, 16


@dataclass(frozen=True)
class Shape(BasePiece):
    """A shape that is drawn.

    Attributes:
        points: of a line and a curve those that it runs through; two opposite corners of a rectangle; the
            centre of a circle and a point on it; three points of an arc, in their order; the centre of an
            ellipse, an end of one axis, and a point as far out as the other.
        closed: whether a line or a curve returns to where it began.
        width: of its line, paper mm; 0 for none.
        fill: the colour that it is filled with; blank for none. That of the paper hides what is under it.
        opacity: of the fill, per cent.
        hatch: the hatch over it; blank for none.
        spacing: of the hatch, paper mm.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "shape"

    form: Form
    points: Annotated[tuple[Anchor, ...], Field(min_length=2, max_length=500)]
    closed: Flag = False
    width: Width | Literal[0] = 0.25
    colour: Colour = INK
    pattern: PatternName = "solid"
    fill: Colour | Literal[""] = ""
    opacity: Percent = 100
    hatch: HatchName = ""
    spacing: Annotated[Number, Field(ge=0.5, le=50.0)] = 2.0
    kind: Literal["shape"] = "shape"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return self.points

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, points=tuple(anchors))

    @property
    def is_area(self) -> bool:
        """Whether it has an inside."""
        return self.form in ("rectangle", "circle", "ellipse") or (
            self.form in ("line", "curve") and self.closed and len(self.points) > 2
        )

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        least, most = FORM_POINTS[self.form]
        if not least <= len(self.points) <= most:
            raise SheetError(f"This shape has {least} points or more. Draw it anew.")
        if len({anchor.at for anchor in self.points}) < least:
            raise SheetError("The points of this shape lie in one place. Choose some that are apart.")
        if not self.width and not self.fill and not self.hatch:
            raise SheetError("This shape has neither a line nor a fill. Give it one, or delete it.")


def outline(shape: Shape, at: Sequence[Point]) -> list[Point]:
    """The line of a shape whose points lie at `at`, in the same measure; without its closing point where it
    has an inside.

    >>> box = Shape("rectangle", (Anchor((0, 0)), Anchor((20, 10))))
    >>> outline(box, [(0, 0), (20, 10)])
    [(0, 0), (20, 0), (20, 10), (0, 10)]
    """
    if shape.form == "rectangle":
        (ax, ay), (bx, by) = at[0], at[1]
        return [(ax, ay), (bx, ay), (bx, by), (ax, by)]
    if shape.form == "circle":
        radius = math.dist(at[0], at[1])
        return _ellipse(at[0], (radius, 0.0), radius)
    if shape.form == "ellipse":
        along = at[1][0] - at[0][0], at[1][1] - at[0][1]
        long = math.hypot(*along) or 1.0
        across = abs(along[0] * (at[2][1] - at[0][1]) - along[1] * (at[2][0] - at[0][0])) / long
        return _ellipse(at[0], along, across)
    if shape.form == "arc":
        return _arc(at)
    if shape.form == "curve":
        return smooth(at, shape.is_area)
    return list(at)


def _ellipse(centre: Point, along: Point, across: float) -> list[Point]:
    long = math.hypot(*along) or 1.0
    side = -along[1] / long * across, along[0] / long * across
    turns = (2 * math.pi * k / _ROUND for k in range(_ROUND))
    return [
        (
            centre[0] + math.cos(a) * along[0] + math.sin(a) * side[0],
            centre[1] + math.cos(a) * along[1] + math.sin(a) * side[1],
        )
        for a in turns
    ]


def _arc(at: Sequence[Point]) -> list[Point]:
    circle = circle_through(*at[:3])
    if circle is None:
        return list(at)
    start, by = swept(circle, at)
    steps = max(2, math.ceil(abs(by) / 360 * _ROUND))
    ways = (math.radians(start + by * k / steps) for k in range(steps + 1))
    x, y = circle.centre
    return [(x + circle.radius * math.cos(a), y + circle.radius * math.sin(a)) for a in ways]


def smooth(at: Sequence[Point], closed: bool) -> list[Point]:
    """A smooth curve through points: a cubic between each two, whose direction at each is that from the point
    before to the one after (Catmull and Rom, 1974)."""
    points = np.array(at, float)
    count = len(points)
    if closed:
        around = np.vstack([points[-1:], points, points[:2]])
    else:
        around = np.vstack([2 * points[:1] - points[1:2], points, 2 * points[-1:] - points[-2:-1]])
    share = np.linspace(0, 1, _BETWEEN, endpoint=False)[:, None]
    made = [
        b + 0.5 * share * (c - a + share * (2 * a - 5 * b + 4 * c - d + share * (3 * (b - c) + d - a)))
        for a, b, c, d in (around[k : k + 4] for k in range(count if closed else count - 1))
    ]
    if not closed:
        made.append(points[-1:])
    return [(float(x), float(y)) for x, y in np.vstack(made)]
