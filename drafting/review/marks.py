"""What a comment marks on a sheet, paper mm. A new kind is a class here and its place in `AnyMark`."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any, ClassVar, Literal

from pydantic import Field

from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point, box_about
from drafting.schema import CLOSED, Number, parse

#: No paper reaches so far; mm.
FARTHEST = 20_000.0
#: A line drawn by hand has no more points, and a comment no more marks.
MAX_POINTS, MAX_MARKS = 2_000, 40

Coordinate = Annotated[Number, Field(ge=-FARTHEST, le=FARTHEST)]
Place = tuple[Coordinate, Coordinate]
Corners = Annotated[tuple[Place, ...], Field(min_length=3, max_length=MAX_POINTS, description="Paper mm.")]
Run = Annotated[tuple[Place, ...], Field(min_length=2, max_length=MAX_POINTS, description="Paper mm.")]


class BaseMark:
    """Something drawn over a sheet by somebody who comments.

    Attributes:
        drawn_through: the names of its places and runs of places, that which it is about first.
    """

    drawn_through: ClassVar[tuple[str, ...]] = ("at",)

    @property
    def points(self) -> tuple[Point, ...]:
        """What it is drawn through, the place that it is about first."""
        found: list[Point] = []
        for name in self.drawn_through:
            value = getattr(self, name)
            found += [value] if isinstance(value[0], float | int) else value
        return tuple(found)


@dataclass(frozen=True)
class PointMark(BaseMark):
    """A place."""

    __pydantic_config__ = CLOSED

    at: Place
    kind: Literal["point"] = "point"


@dataclass(frozen=True)
class TextMark(BaseMark):
    """The words of the comment lettered on the sheet; `at` is their upper left corner."""

    __pydantic_config__ = CLOSED

    at: Place
    kind: Literal["text"] = "text"


@dataclass(frozen=True)
class ArrowMark(BaseMark):
    """An arrow from `tail` to `tip`, which it is about."""

    __pydantic_config__ = CLOSED
    drawn_through: ClassVar = ("tip", "tail")

    tail: Place
    tip: Place
    kind: Literal["arrow"] = "arrow"


@dataclass(frozen=True)
class LineMark(BaseMark):
    """A line drawn by hand."""

    __pydantic_config__ = CLOSED
    drawn_through: ClassVar = ("run",)

    run: Run
    kind: Literal["line"] = "line"


@dataclass(frozen=True)
class CloudMark(BaseMark):
    """A cloud about a part of the sheet."""

    __pydantic_config__ = CLOSED
    drawn_through: ClassVar = ("corners",)

    corners: Corners
    kind: Literal["cloud"] = "cloud"


@dataclass(frozen=True)
class AreaMark(BaseMark):
    """An outline about a part of the sheet; `filled` where it is a wash over it, as a highlighter leaves."""

    __pydantic_config__ = CLOSED
    drawn_through: ClassVar = ("corners",)

    corners: Corners
    filled: Annotated[bool, Field(strict=True)] = False
    kind: Literal["area"] = "area"


@dataclass(frozen=True)
class LengthMark(BaseMark):
    """A length that was measured between two places.

    Attributes:
        length: of the building, mm; zero on the bare sheet and where a view has no scale.
    """

    __pydantic_config__ = CLOSED
    drawn_through: ClassVar = ("first", "last")

    first: Place
    last: Place
    length: Annotated[Number, Field(ge=0, description="Real mm.")] = 0.0
    kind: Literal["length"] = "length"


AnyMark = Annotated[
    PointMark | TextMark | ArrowMark | LineMark | CloudMark | AreaMark | LengthMark,
    Field(discriminator="kind"),
]
Marks = Annotated[tuple[AnyMark, ...], Field(max_length=MAX_MARKS)]


def parse_marks(given: Any) -> tuple[AnyMark, ...]:
    """Marks from plain data.

    Raises:
        SheetError: something that no mark has.
    """
    marks: tuple[AnyMark, ...] = parse(Marks, given, "mark", SheetError)
    return marks


def place_of(marks: Sequence[AnyMark]) -> Point | None:
    """The place that a comment is about; None where it marks nothing.

    >>> place_of([ArrowMark((0.0, 0.0), (30.0, 40.0))])
    (30.0, 40.0)
    """
    return marks[0].points[0] if marks else None


def box_of(marks: Sequence[AnyMark]) -> Box | None:
    """What some marks lie within, paper mm; None for none.

    >>> box_of([LengthMark((10.0, 5.0), (0.0, 25.0))])
    Box(x=0.0, y=5.0, width=10.0, height=20.0)
    """
    return box_about(point for mark in marks for point in mark.points) if marks else None
