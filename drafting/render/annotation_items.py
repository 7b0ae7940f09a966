"""Pieces of annotation as they are drawn, and where each can be taken hold of."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from drafting.annotation.images import ImagePiece, image_boxes
from drafting.annotation.pieces import PieceKind, PlacedPiece
from drafting.annotation.schedules import Schedule
from drafting.annotation.tables import FreeTable
from drafting.annotation.tags import Tag
from drafting.geometry.boxes import Box, union
from drafting.render.backends.extents import bounds_of
from drafting.render.cloud_items import cloud_items
from drafting.render.dimension_items import STROKE_PEN, dimension_items, dimensioned, spot_level_items
from drafting.render.display_list import PieceBox
from drafting.render.items import Item, Path, Text
from drafting.render.measure_items import measure_items
from drafting.render.note_items import note_items, numbered_note_items, worded
from drafting.render.picture_items import picture_items
from drafting.render.shape_items import shape_items
from drafting.render.symbol_items import inserted, symbol_items
from drafting.render.table_items import table_items
from drafting.render.tag_items import tag_items

IMAGES = "Images"


def _by_all(items: Sequence[Item]) -> list[Item]:
    return list(items)


def _by_words(items: Sequence[Item]) -> list[Item]:
    """Not by leaders and extension lines, which cross the drawing."""
    return [item for item in items if isinstance(item, Text)]


def _by_figures(items: Sequence[Item]) -> list[Item]:
    return [item for item in items if not isinstance(item, Path) or item.pen == STROKE_PEN]


def _by_mark(items: Sequence[Item]) -> list[Item]:
    return [item for item in items if isinstance(item, Path) and item.closed]


@dataclass(frozen=True)
class _Kind:
    """How a kind of annotation is drawn, and what of it is taken hold of.

    Attributes:
        items: what it is drawn as, from a placed piece, the piece, and the id of its viewport.
        grip: those of them that are taken hold of.
        whole: the same as one item, for outputs that have such a thing of their own.
    """

    items: Callable[[PlacedPiece, Any, str], Iterable[Item]]
    grip: Callable[[Sequence[Item]], list[Item]] = _by_all
    whole: Callable[[PlacedPiece, Any, Any], Item] | None = None


def _table(placed: PlacedPiece, _: Schedule | FreeTable, source: str) -> Iterator[Item]:
    if placed.table:
        yield from table_items(placed.table, placed.points[0], source)


def _tag(placed: PlacedPiece, tag: Tag, source: str) -> Iterator[Item]:
    if placed.label:
        yield from tag_items(placed, tag, source)


def _image(placed: PlacedPiece, image: ImagePiece, source: str) -> Iterator[Item]:
    if placed.picture:
        ratio = placed.picture.height / placed.picture.width
        whole, seen = image_boxes(image, placed.points[0], ratio)
        window = seen if any(image.crop) else None
        yield from picture_items(placed.picture, whole, IMAGES, window, source)


_KINDS: Mapping[PieceKind, _Kind] = {
    "note": _Kind(note_items, _by_words, worded),
    "numbered": _Kind(numbered_note_items, _by_mark),
    "dimension": _Kind(dimension_items, _by_figures, dimensioned),
    "measure": _Kind(measure_items, _by_words),
    "level": _Kind(spot_level_items),
    "schedule": _Kind(_table),
    "table": _Kind(_table),
    "cloud": _Kind(cloud_items),
    "tag": _Kind(_tag),
    "shape": _Kind(shape_items),
    "symbol": _Kind(symbol_items, whole=inserted),
    "image": _Kind(_image),
}


def piece_items(placed: PlacedPiece) -> Sequence[Item]:
    """What a piece is drawn as."""
    source, piece = placed.viewport.id if placed.viewport else "", placed.piece
    return list(_KINDS[piece.kind].items(placed, piece, source))


def drawn_piece(placed: PlacedPiece, items: Sequence[Item]) -> Sequence[Item]:
    """The items of a piece as they stand on the sheet: those of a dimension, a note, a symbol as one."""
    whole = _KINDS[placed.piece.kind].whole
    return [whole(placed, placed.piece, list(items))] if whole and items else list(items)


@dataclass(frozen=True)
class DrawnPieces:
    """Pieces with what each is drawn as, and where they can be taken hold of.

    Attributes:
        drawn: each piece and its items.
        boxes: one for each, in their order.
    """

    drawn: tuple[tuple[PlacedPiece, Sequence[Item]], ...] = ()
    boxes: tuple[PieceBox, ...] = ()

    @classmethod
    def of(cls, pieces: Iterable[PlacedPiece]) -> DrawnPieces:
        drawn = tuple((placed, piece_items(placed)) for placed in pieces)
        return cls(drawn, piece_boxes(drawn))


def _words(placed: PlacedPiece, items: Sequence[Item]) -> str:
    """What a piece says; of a table its heading, of a symbol its name."""
    if placed.table is not None:
        return placed.table.title
    if placed.symbol is not None:
        return " ".join([*placed.label, *(item.text for item in items if isinstance(item, Text))])
    return " ".join(item.text for item in items if isinstance(item, Text))


def piece_boxes(drawn: Iterable[tuple[PlacedPiece, Sequence[Item]]]) -> tuple[PieceBox, ...]:
    """Where each piece lies, what it is attached to, and how it stands."""
    found = []
    for placed, items in drawn:
        grip = _KINDS[placed.piece.kind].grip(items)
        # What measures nothing any more can still be taken hold of, where it was.
        box = bounds_of(*grip) if grip else union(Box(x, y, 0.0, 0.0) for x, y in placed.points)
        viewport = placed.viewport.id if placed.viewport else ""
        location = placed.location
        is_dimension = placed.piece.kind == "dimension"
        figures = [bounds_of(item) for item in items if isinstance(item, Text)] if is_dimension else []
        found.append(
            PieceBox(
                placed.id,
                placed.piece.kind,
                viewport,
                box,
                _words(placed, items),
                placed.points,
                location.at,
                location.standing,
                location.words,
                placed.piece.typed_over,
                tuple(figures),
            )
        )
    return tuple(found)
