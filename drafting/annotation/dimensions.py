"""Dimensions: true lengths of the model between points of a drawing (ISO 129-1; building practice)."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Annotated, Literal, get_args

from pydantic import Field

from drafting.annotation.anchors import SAME, Anchor
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Flag, Number
from drafting.styles.lengths import feet_and_inches, plain_figure

#: A chain has no more points than this.
MAX_POINTS = 200
#: A dimension line lies no further from its first point, paper mm.
MAX_OFFSET = 2000.0
MAX_WORDS = 60
#: Feet and inches are given to an eighth of an inch.
EIGHTHS = 8

Measures = Literal["aligned", "horizontal", "vertical"]
Terminator = Literal["stroke", "arrow", "dot"]
StyleName = Literal["millimetres", "centimetres", "metres", "feet"]
STYLE_NAMES: tuple[StyleName, ...] = get_args(StyleName)


@dataclass(frozen=True)
class DimensionStyle:
    """How dimensions are lettered and ended.

    Attributes:
        unit: how many mm one of its unit has; None for feet and inches.
        decimals: as many at most.
        fixed: whether zeros at the end are written.
        text: height of capitals, paper mm.
        terminator: what ends the dimension lines.
    """

    unit: float | None
    decimals: int = 0
    fixed: bool = False
    text: float = 2.5
    terminator: Terminator = "stroke"

    def words(self, length: float) -> str:
        """A length, mm, as it is lettered.

        >>> STYLES["millimetres"].words(4200.4), STYLES["metres"].words(4200.4)
        ('4200', '4.20')
        """
        if self.unit is None:
            return feet_and_inches(length, EIGHTHS)
        figure = length / self.unit
        return f"{figure:.{self.decimals}f}" if self.fixed else plain_figure(figure, self.decimals)


STYLES: Mapping[StyleName, DimensionStyle] = {
    "millimetres": DimensionStyle(1.0),
    "centimetres": DimensionStyle(10.0, 1),
    "metres": DimensionStyle(1000.0, 2, fixed=True),
    "feet": DimensionStyle(None),
}


@dataclass(frozen=True)
class Dimension:
    """A dimension of one length, or a chain of several.

    Attributes:
        points: what it measures between, two or more.
        measures: along the line from the first point to the last, or along the drawing's u or v.
        offset: how far the dimension line lies from the first point, paper mm; to the left of the way that is
            measured.
        extension: how long its extension lines are at most, paper mm; None for as long as from the points.
        style: one of STYLES.
        overrides: what is typed over the true figure of each length; blank for the figure.
        series: by what it is found again where it was made for a whole side of a plan; blank for one that was
            drawn.
        together: whether equal lengths that follow each other are lettered as one, such as 4 × 600 = 2400.
    """

    __pydantic_config__ = CLOSED

    points: Annotated[tuple[Anchor, ...], Field(min_length=2, max_length=MAX_POINTS)]
    measures: Measures = "aligned"
    offset: Annotated[Number, Field(ge=-MAX_OFFSET, le=MAX_OFFSET)] = 10.0
    extension: Annotated[Number, Field(gt=0, le=MAX_OFFSET)] | None = None
    style: StyleName = "millimetres"
    overrides: Annotated[
        tuple[Annotated[str, Field(max_length=MAX_WORDS)], ...], Field(max_length=MAX_POINTS)
    ] = ()
    together: Flag = False
    series: Annotated[str, Field(max_length=40)] = ""
    kind: Literal["dimension"] = "dimension"


@dataclass(frozen=True)
class Length:
    """One length of a chain: its ends by the numbers of their points, and its true measure, mm."""

    first: int
    last: int
    measure: float


@dataclass(frozen=True)
class Measured:
    """What a dimension measures: the way along which it does, a unit vector in u and v, and its lengths in
    their order along it."""

    way: Point
    lengths: tuple[Length, ...]


def measured(dimension: Dimension, at: Sequence[Point]) -> Measured:
    """What a dimension measures where its points lie at `at` (u and v, mm).

    Points that lie in one place along the way are one. A dimension of nothing has no lengths.

    >>> def point(u, v): return Anchor((u, v))
    >>> chain = Dimension((point(0, 0), point(1000, 0), point(400, 50)), "horizontal")
    >>> [length.measure for length in measured(chain, [p.at for p in chain.points]).lengths]
    [400.0, 600.0]
    """
    way = _way(dimension.measures, at)
    along = [u * way[0] + v * way[1] for u, v in at]
    order: list[int] = []
    for k in sorted(range(len(at)), key=lambda k: along[k]):
        if not order or along[k] - along[order[-1]] >= SAME:
            order.append(k)
    return Measured(way, tuple(Length(a, b, along[b] - along[a]) for a, b in pairwise(order)))


def _way(measures: Measures, at: Sequence[Point]) -> Point:
    if measures == "horizontal":
        return 1.0, 0.0
    if measures == "vertical":
        return 0.0, 1.0
    (ax, ay), (bx, by) = at[0], at[-1]
    length = math.hypot(bx - ax, by - ay)
    return ((bx - ax) / length, (by - ay) / length) if length >= SAME else (1.0, 0.0)


def lettered(dimension: Dimension, lengths: Sequence[Length]) -> list[tuple[int, int, str]]:
    """What stands over a dimension line: the first and the last point of each stretch, and its words.

    >>> def point(u): return Anchor((u, 0))
    >>> steps = Dimension(tuple(point(600 * k) for k in range(5)), "horizontal", together=True)
    >>> lettered(steps, measured(steps, [p.at for p in steps.points]).lengths)
    [(0, 4, '4 × 600 = 2400')]
    """
    style, words = STYLES[dimension.style], []
    k = 0
    while k < len(lengths):
        run = k + 1
        if dimension.together:
            while run < len(lengths) and abs(lengths[run].measure - lengths[k].measure) < SAME:
                run += 1
        typed = dimension.overrides[k] if k < len(dimension.overrides) else ""
        one = style.words(lengths[k].measure)
        total = sum(length.measure for length in lengths[k:run])
        true = one if run == k + 1 else f"{run - k} × {one} = {style.words(total)}"
        words.append((lengths[k].first, lengths[run - 1].last, typed or true))
        k = run
    return words


def changes(dimension: Dimension, now: Sequence[Point]) -> list[tuple[float, float]]:
    """Those lengths that are not what they were when the points were attached: before and now, mm."""
    before = measured(dimension, [anchor.at for anchor in dimension.points]).lengths
    after = measured(dimension, now).lengths
    if len(before) != len(after):
        return [(sum(x.measure for x in before), sum(x.measure for x in after))]
    pairs = [(a.measure, b.measure) for a, b in zip(before, after, strict=True)]
    return [(a, b) for a, b in pairs if abs(a - b) >= SAME]
