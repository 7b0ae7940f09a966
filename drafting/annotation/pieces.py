"""Every kind of annotation, a piece as plain data, and a piece where it stands. A new kind is a module of its
own and a name in `AnyPiece`."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal, get_args

from pydantic import Field

from drafting.annotation.anchors import Anchor, described
from drafting.annotation.clouds import Cloud
from drafting.annotation.dimensions import STYLES, Dimension, DimensionStyle
from drafting.annotation.images import ImagePiece
from drafting.annotation.measures import Measure
from drafting.annotation.notes import Note
from drafting.annotation.numbered_notes import NumberedNote
from drafting.annotation.piece import CornersOf, Location
from drafting.annotation.schedules import Schedule
from drafting.annotation.shapes import Shape
from drafting.annotation.spot_levels import SpotLevel
from drafting.annotation.symbols import Symbol, SymbolSpec
from drafting.annotation.tables import FreeTable, Table
from drafting.annotation.tags import Tag
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.schema import dump, parse
from drafting.sheets.picture import Picture
from drafting.sheets.viewport import Viewport

_Any = (
    Note | NumberedNote | Dimension | Measure | SpotLevel | Schedule | FreeTable | Cloud | Tag | Shape
    | Symbol | ImagePiece
)  # fmt: skip
AnyPiece = Annotated[_Any, Field(discriminator="kind")]
PieceKind = Literal[
    "note", "numbered", "dimension", "measure", "level", "schedule", "table", "cloud", "tag", "shape",
    "symbol", "image",
]  # fmt: skip
#: What a piece is called in a sentence.
NAMES: Mapping[PieceKind, str] = {kind.kind: kind.name for kind in get_args(_Any)}


def parse_piece(given: Any) -> AnyPiece:
    """The piece that `dump_piece` wrote.

    Raises:
        SheetError: a figure is missing, unknown or out of bounds.
    """
    piece: AnyPiece = parse(AnyPiece, given, "annotation", SheetError)
    return piece


def dump_piece(piece: AnyPiece) -> dict[str, Any]:
    """A piece as plain data; equal pieces give equal data."""
    data: dict[str, Any] = dump(piece)
    return data


def attached(piece: AnyPiece, corners_of: CornersOf) -> AnyPiece:
    """A piece whose new anchors, of which only place and element are known, are told by corners."""

    def told(anchor: Anchor) -> Anchor:
        if not anchor.element or anchor.ends:
            return anchor
        among = corners_of(anchor.element)
        return described(anchor.at, anchor.element, among) if among is not None else Anchor(anchor.at)

    return piece.attached_to([told(anchor) for anchor in piece.anchors])


@dataclass(frozen=True)
class PlacedPiece:
    """A piece of annotation as it stands on a sheet.

    Attributes:
        id: its own.
        location: where it is attached now.
        viewport: what it is seen through; None for one on the bare sheet.
        zero: the height of v = 0 of its view above the building's zero, mm.
        table: what stands in a schedule or a table.
        label: the lines of a tag, the number of a numbered note.
        style: how a dimension or a measure is lettered.
        symbol: what a symbol is drawn as; its name is the label.
        picture: of an image; None where there is none any more.
    """

    id: str
    piece: AnyPiece
    location: Location
    viewport: Viewport | None = None
    zero: float = 0.0
    table: Table | None = None
    label: tuple[str, ...] = ()
    style: DimensionStyle = STYLES["millimetres"]
    symbol: SymbolSpec | None = None
    picture: Picture | None = None

    @property
    def points(self) -> tuple[Point, ...]:
        """Where it is attached, on paper, mm."""
        return tuple(self.to_paper(point) for point in self.location.at)

    def to_paper(self, point: Point) -> Point:
        """A point of what it is on, on paper, mm."""
        return self.viewport.to_paper(*point) if self.viewport else point

    @property
    def ratio(self) -> float:
        """Paper mm for one mm of what it is on."""
        return float(self.viewport.scale.ratio) if self.viewport else 1.0

    @property
    def turn(self) -> float:
        """By how much the drawing that it is on is turned, degrees anticlockwise."""
        return self.viewport.turn if self.viewport else 0.0
