"""Symbols: small drawings of a library that stand in many places, and are changed in all at once."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import Anchor, Degrees
from drafting.annotation.piece import BasePiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Colour, Flag, Number, dump, parse
from drafting.styles.pens import INK, Width
from drafting.views.spec import AnyView

MAX_LINES, MAX_POINTS, MAX_WORDS = 2_000, 20_000, 12
#: A symbol reaches no further from its insertion point, mm.
MAX_REACH = 100_000.0
Reach = Annotated[Number, Field(ge=-MAX_REACH, le=MAX_REACH)]


@dataclass(frozen=True)
class SymbolLine:
    """A line of a symbol: its points, mm from the insertion point; its width on paper, 0 for none; and the
    colour that a closed one is filled with, blank for none."""

    __pydantic_config__ = CLOSED

    points: Annotated[tuple[tuple[Reach, Reach], ...], Field(min_length=2, max_length=MAX_POINTS)]
    closed: Flag = False
    width: Width | Literal[0] = 0.18
    colour: Colour = INK
    fill: Colour | Literal[""] = ""


@dataclass(frozen=True)
class SymbolWords:
    """A place for words in a symbol: the middle of their base line, mm from the insertion point; the height
    of a capital in paper mm; and what stands there where nothing else is typed."""

    __pydantic_config__ = CLOSED

    at: tuple[Reach, Reach]
    size: Annotated[Number, Field(ge=1.0, le=20.0)] = 2.5
    text: Annotated[str, Field(max_length=60)] = ""


@dataclass(frozen=True)
class SymbolSpec:
    """What a symbol is drawn as.

    Attributes:
        real: whether its lengths are real mm, as of a car, which is as long as the scale makes it; else they
            are mm of paper, as of a socket.
    """

    __pydantic_config__ = CLOSED

    lines: Annotated[tuple[SymbolLine, ...], Field(min_length=1, max_length=MAX_LINES)]
    words: Annotated[tuple[SymbolWords, ...], Field(max_length=MAX_WORDS)] = ()
    real: Flag = False

    def __post_init__(self) -> None:
        if sum(len(line.points) for line in self.lines) > MAX_POINTS:
            raise SheetError(f"A symbol has at most {MAX_POINTS} points. Make it simpler.")


def parse_symbol(given: Any) -> SymbolSpec:
    """The symbol that `dump_symbol` wrote.

    Raises:
        SheetError: a figure is missing, unknown or out of bounds.
    """
    symbol: SymbolSpec = parse(SymbolSpec, given, "symbol", SheetError)
    return symbol


def dump_symbol(symbol: SymbolSpec) -> dict[str, Any]:
    """A symbol as plain data."""
    data: dict[str, Any] = dump(symbol)
    return data


@dataclass(frozen=True)
class Symbol(BasePiece):
    """A symbol of the library where it stands.

    Attributes:
        at: where its insertion point lies.
        symbol: the id of the symbol.
        turn: degrees anticlockwise, with the drawing that it is on.
        size: how many times as large as in the library.
        mirrored: whether left and right are exchanged.
        words: what stands in its places for words; blank for what the library has there.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "symbol"

    at: Anchor
    symbol: Annotated[str, Field(min_length=1, max_length=40)]
    turn: Degrees = 0.0
    size: Annotated[Number, Field(ge=0.05, le=20.0)] = 1.0
    mirrored: Flag = False
    words: Annotated[tuple[Annotated[str, Field(max_length=60)], ...], Field(max_length=MAX_WORDS)] = ()
    kind: Literal["symbol"] = "symbol"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0])

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        """A symbol is true wherever it stands."""


def symbol_place(symbol: Symbol, at: Point, ratio: float, turn: float) -> tuple[float, float, Point]:
    """How a symbol lies on paper: how many times as large, turned by how many degrees, and where.

    Args:
        ratio: paper mm for one mm of the library: 1, or the scale for one of real size.
        turn: of the drawing that it is on, degrees.
    """
    return symbol.size * ratio, (symbol.turn + turn) % 360, at


def laid(points: Sequence[Point], symbol: Symbol, at: Point, ratio: float, turn: float) -> list[Point]:
    """Points of a symbol's own drawing on paper, mm.

    >>> piece = Symbol(Anchor((0, 0)), "s", turn=90, mirrored=True)
    >>> [(round(x), round(y)) for x, y in laid([(1, 0), (0, 2)], piece, (10, 10), 1, 0)]
    [(10, 9), (8, 10)]
    """
    size, turned, (x, y) = symbol_place(symbol, at, ratio, turn)
    cos, sin = size * math.cos(math.radians(turned)), size * math.sin(math.radians(turned))
    way = -1.0 if symbol.mirrored else 1.0
    return [(x + way * u * cos - v * sin, y + way * u * sin + v * cos) for u, v in points]
