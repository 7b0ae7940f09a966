"""Named styles of a project: how words, and how dimensions, are lettered wherever a piece has the style."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Any, Literal

from pydantic import Field

from drafting.annotation.dimensions import STYLES, Dimension, DimensionStyle
from drafting.annotation.measures import Measure
from drafting.annotation.notes import Note
from drafting.annotation.pieces import AnyPiece
from drafting.annotation.tables import Table
from drafting.errors import SheetError
from drafting.schema import CLOSED, Colour, Flag, Number, dump, parse
from drafting.styles.pens import INK


@dataclass(frozen=True)
class TextStyle:
    """How words are lettered: the height of a capital in paper mm, bold or not, and their colour."""

    __pydantic_config__ = CLOSED

    size: Annotated[Number, Field(ge=1.0, le=20.0)] = 2.5
    bold: Flag = False
    colour: Colour = INK
    of: Literal["text"] = "text"


AnyStyle = Annotated[TextStyle | DimensionStyle, Field(discriminator="of")]


def parse_style(given: Any) -> TextStyle | DimensionStyle:
    """The style that `dump_style` wrote.

    Raises:
        SheetError: a figure is missing, unknown or out of bounds.
    """
    style: TextStyle | DimensionStyle = parse(AnyStyle, given, "style", SheetError)
    return style


def dump_style(style: TextStyle | DimensionStyle) -> dict[str, Any]:
    """A style as plain data."""
    data: dict[str, Any] = dump(style)
    return data


def in_text_style(piece: AnyPiece, styles: Mapping[str, TextStyle | DimensionStyle]) -> AnyPiece:
    """A note with the figures of the style that it names. A name that there is no more leaves it its own."""
    style = styles.get(piece.named) if isinstance(piece, Note) else None
    if isinstance(piece, Note) and isinstance(style, TextStyle):
        return replace(piece, size=style.size, bold=style.bold, colour=style.colour)
    return piece


def table_in_style(table: Table, named: str, styles: Mapping[str, TextStyle | DimensionStyle]) -> Table:
    """A table whose cells are lettered in a text style. A name that there is no more leaves the usual."""
    style = styles.get(named)
    if not isinstance(style, TextStyle):
        return table
    return replace(table, size=style.size, bold=style.bold, colour=style.colour)


def dimension_style(piece: AnyPiece, styles: Mapping[str, TextStyle | DimensionStyle]) -> DimensionStyle:
    """How a dimension or a measure is lettered: in the style that it names, else as its unit usually is."""
    if not isinstance(piece, Dimension | Measure):
        return STYLES["millimetres"]
    style = styles.get(piece.named)
    return style if isinstance(style, DimensionStyle) else STYLES[piece.style]
