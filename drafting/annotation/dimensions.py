"""Dimensions: true lengths of the model between points of a drawing (ISO 129-1; building practice)."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Annotated, ClassVar, Literal, Self, get_args

from pydantic import Field

from drafting.annotation.anchors import SAME, Anchor
from drafting.annotation.piece import BasePiece, Named, need_true_lengths
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Flag, Number, Whole
from drafting.styles.lengths import feet_and_inches, plain_figure
from drafting.views.spec import AnyView

#: A chain has no more points than this.
MAX_POINTS = 200
#: A dimension line lies no further from its first point, paper mm.
MAX_OFFSET = 2000.0
MAX_WORDS = 60
#: From one dimension line to the next outward, paper mm.
LINES_APART = 8.0
Shift = Annotated[Number, Field(ge=-500.0, le=500.0)]

Measures = Literal["aligned", "horizontal", "vertical"]
Arrangement = Literal["chain", "base", "overall"]
Terminator = Literal["stroke", "arrow", "dot"]
TextPlace = Literal["above", "inside"]
StyleName = Literal["millimetres", "centimetres", "metres", "feet"]
STYLE_NAMES: tuple[StyleName, ...] = get_args(StyleName)


@dataclass(frozen=True)
class DimensionStyle:
    """How dimensions are lettered and ended.

    Attributes:
        unit: of their figures.
        decimals: as many at most; of feet and inches the parts of an inch, as a power of two.
        fixed: whether zeros at the end are written.
        text: height of capitals, paper mm.
        terminator: what ends the dimension lines.
        place: figures above the dimension line, or in it.
        gap: from what is measured to where extension lines begin, paper mm.
        plus, minus: the tolerance that is written behind figures, mm; 0 for none.
    """

    __pydantic_config__ = CLOSED

    unit: StyleName = "millimetres"
    decimals: Annotated[Whole, Field(ge=0, le=5)] = 0
    fixed: Flag = False
    text: Annotated[Number, Field(ge=1.0, le=10.0)] = 2.5
    terminator: Terminator = "stroke"
    place: TextPlace = "above"
    gap: Annotated[Number, Field(ge=0.0, le=20.0)] = 1.5
    plus: Annotated[Number, Field(ge=0.0, le=1000.0)] = 0.0
    minus: Annotated[Number, Field(ge=0.0, le=1000.0)] = 0.0
    of: Literal["dimension"] = "dimension"

    def words(self, length: float) -> str:
        """A length, mm, as it is lettered.

        >>> STYLES["millimetres"].words(4200.4), STYLES["metres"].words(4200.4)
        ('4200', '4.20')
        >>> DimensionStyle(plus=10, minus=5).words(4200)
        '4200 +10/-5'
        """
        figure = self._figure(length)
        if not self.plus and not self.minus:
            return figure
        plus, minus = self._figure(self.plus), self._figure(self.minus)
        return f"{figure} ±{plus}" if plus == minus else f"{figure} +{plus}/-{minus}"

    def _figure(self, length: float) -> str:
        if self.unit == "feet":
            return feet_and_inches(length, 2**self.decimals)
        figure = length / _UNITS[self.unit]
        return f"{figure:.{self.decimals}f}" if self.fixed else plain_figure(figure, self.decimals)


#: mm in each unit that is counted in tens.
_UNITS: Mapping[StyleName, float] = {"millimetres": 1.0, "centimetres": 10.0, "metres": 1000.0}
#: How each unit is usually lettered: feet and inches to an eighth of an inch.
STYLES: Mapping[StyleName, DimensionStyle] = {
    "millimetres": DimensionStyle(),
    "centimetres": DimensionStyle("centimetres", 1),
    "metres": DimensionStyle("metres", 2, fixed=True),
    "feet": DimensionStyle("feet", 3),
}


@dataclass(frozen=True)
class Dimension(BasePiece):
    """A dimension of one length, or a chain of several.

    Attributes:
        points: what it measures between, two or more.
        measures: along the line from the first point to the last, or along the drawing's u or v.
        offset: how far the dimension line lies from the first point, paper mm; to the left of the way that is
            measured.
        extension: how long its extension lines are at most, paper mm; None for as long as from the points.
        style: the unit of its figures.
        named: the id of a style of the project that it is lettered in; blank for the usual one of its unit.
        overrides: what is typed over the true figure of each length; blank for the figure.
        shifts: by how much the figure of each length is moved by hand, along its line and upward, paper mm.
        series: by what it is found again where it was made for a whole side of a plan; blank for one that was
            drawn.
        together: whether equal lengths that follow each other are lettered as one, such as 4 × 600 = 2400.
        arrangement: whether its lengths follow each other on one line, are all measured from the first point,
            on a line each (ISO 129-1: parallel dimensioning), or have the whole outside of them.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "dimension"

    points: Annotated[tuple[Anchor, ...], Field(min_length=2, max_length=MAX_POINTS)]
    measures: Measures = "aligned"
    offset: Annotated[Number, Field(ge=-MAX_OFFSET, le=MAX_OFFSET)] = 10.0
    extension: Annotated[Number, Field(gt=0, le=MAX_OFFSET)] | None = None
    style: StyleName = "millimetres"
    named: Named = ""
    overrides: Annotated[
        tuple[Annotated[str, Field(max_length=MAX_WORDS)], ...], Field(max_length=MAX_POINTS)
    ] = ()
    shifts: Annotated[tuple[tuple[Shift, Shift], ...], Field(max_length=MAX_POINTS)] = ()
    together: Flag = False
    arrangement: Arrangement = "chain"
    series: Annotated[str, Field(max_length=40)] = ""
    kind: Literal["dimension"] = "dimension"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return self.points

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, points=tuple(anchors))

    @property
    def typed_over(self) -> bool:
        return any(self.overrides)

    def changes(self, at: Sequence[Point]) -> str:
        style = STYLES[self.style]
        return ", ".join(f"{style.words(a)} is now {style.words(b)}" for a, b in changes(self, at))

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        need_true_lengths(view, self.name)
        if not measured(self, [anchor.at for anchor in self.points]).lengths:
            raise SheetError("The points of this dimension lie in one place. Choose two that are apart.")


@dataclass(frozen=True)
class Length:
    """One length of a chain: its ends by the numbers of their points, and its true measure, mm."""

    first: int
    last: int
    measure: float


@dataclass(frozen=True)
class Measured:
    """What a dimension measures: the way along which it does, a unit vector in u and v, its lengths in their
    order along it, and before which of them its first point lies."""

    way: Point
    lengths: tuple[Length, ...]
    base: int = 0


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
    base = 0
    for k in sorted(range(len(at)), key=lambda k: along[k]):
        if not order or along[k] - along[order[-1]] >= SAME:
            order.append(k)
        if k == 0:
            base = len(order) - 1
    return Measured(way, tuple(Length(a, b, along[b] - along[a]) for a, b in pairwise(order)), base)


def dimension_lines(arrangement: Arrangement, found: Measured) -> list[tuple[Length, ...]]:
    """The lengths of each dimension line, the nearest to the points first.

    >>> def point(u): return Anchor((u, 0))
    >>> steps = Dimension((point(0), point(400), point(1000)), "horizontal")
    >>> found = measured(steps, [p.at for p in steps.points])
    >>> [[length.measure for length in line] for line in dimension_lines("overall", found)]
    [[400.0, 600.0], [1000.0]]
    >>> [[length.measure for length in line] for line in dimension_lines("base", found)]
    [[400.0], [1000.0]]
    """
    chain, base = found.lengths, found.base
    if arrangement == "chain" or len(chain) < 2:
        return [chain]
    if arrangement == "overall":
        return [chain, (_sum(chain),)]
    before = [_sum(chain[k:base]) for k in range(base)]
    after = [_sum(chain[base : k + 1]) for k in range(base, len(chain))]
    return [(length,) for length in sorted((*before, *after), key=lambda length: length.measure)]


def _sum(lengths: Sequence[Length]) -> Length:
    """Lengths that follow each other as one; of nothing, nothing."""
    if not lengths:
        return Length(0, 0, 0.0)
    return Length(lengths[0].first, lengths[-1].last, sum(length.measure for length in lengths))


def _way(measures: Measures, at: Sequence[Point]) -> Point:
    if measures == "horizontal":
        return 1.0, 0.0
    if measures == "vertical":
        return 0.0, 1.0
    (ax, ay), (bx, by) = at[0], at[-1]
    length = math.hypot(bx - ax, by - ay)
    return ((bx - ax) / length, (by - ay) / length) if length >= SAME else (1.0, 0.0)


@dataclass(frozen=True)
class Lettered:
    """What stands over a stretch of a dimension line: its ends by the numbers of their points, its words, and
    the number of its first length in the dimension."""

    first: int
    last: int
    words: str
    length: int


def lettered(
    dimension: Dimension, lengths: Sequence[Length], style: DimensionStyle, start: int = 0
) -> list[Lettered]:
    """What stands over a dimension line, stretch by stretch; `start` lengths stand on lines before it.

    >>> def point(u): return Anchor((u, 0))
    >>> steps = Dimension(tuple(point(600 * k) for k in range(5)), "horizontal", together=True)
    >>> lengths = measured(steps, [p.at for p in steps.points]).lengths
    >>> [each.words for each in lettered(steps, lengths, STYLES["millimetres"])]
    ['4 × 600 = 2400']
    """
    words = []
    k = 0
    while k < len(lengths):
        run = k + 1
        if dimension.together:
            while run < len(lengths) and abs(lengths[run].measure - lengths[k].measure) < SAME:
                run += 1
        number = start + k
        typed = dimension.overrides[number] if number < len(dimension.overrides) else ""
        one = style.words(lengths[k].measure)
        total = sum(length.measure for length in lengths[k:run])
        true = one if run == k + 1 else f"{run - k} × {one} = {style.words(total)}"
        words.append(Lettered(lengths[k].first, lengths[run - 1].last, typed or true, number))
        k = run
    return words


def changes(dimension: Dimension, now: Sequence[Point]) -> list[tuple[float, float]]:
    """Those lengths that are not what they were when the points were attached: before and now, mm."""
    before, after = measured(dimension, [anchor.at for anchor in dimension.points]), measured(dimension, now)
    if len(before.lengths) != len(after.lengths):
        return [(_sum(before.lengths).measure, _sum(after.lengths).measure)]
    lines = (dimension_lines(dimension.arrangement, found) for found in (before, after))
    pairs = zip(*([length.measure for line in each for length in line] for each in lines), strict=True)
    return [(a, b) for a, b in pairs if abs(a - b) >= SAME]
