"""Pieces of annotation as they are drawn, and where each can be taken hold of."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from drafting.annotation.clouds import Cloud
from drafting.annotation.dimensions import Dimension
from drafting.annotation.notes import Note
from drafting.annotation.pieces import PlacedPiece, is_typed_over
from drafting.annotation.schedules import Schedule
from drafting.annotation.tags import Tag
from drafting.geometry.boxes import Box, union
from drafting.render.backends.extents import bounds_of
from drafting.render.cloud_items import cloud_items
from drafting.render.dimension_items import STROKE_PEN, dimension_items, dimensioned, spot_level_items
from drafting.render.display_list import PieceBox
from drafting.render.items import FlatItem, Item, Path, Text
from drafting.render.note_items import note_items
from drafting.render.table_items import table_items
from drafting.render.tag_items import tag_items


def piece_items(placed: PlacedPiece) -> Sequence[FlatItem]:
    """What a piece is drawn as."""
    source, piece = placed.viewport.id if placed.viewport else "", placed.piece
    if isinstance(piece, Dimension):
        return list(dimension_items(placed, piece, source))
    if isinstance(piece, Note):
        return list(note_items(placed, piece, source))
    if isinstance(piece, Schedule):
        return list(table_items(placed.table, placed.points[0], source)) if placed.table else []
    if isinstance(piece, Tag):
        return list(tag_items(placed, piece, source)) if placed.label else []
    if isinstance(piece, Cloud):
        return list(cloud_items(placed, piece, source))
    return list(spot_level_items(placed, piece, source))


def drawn_piece(placed: PlacedPiece, items: Sequence[FlatItem]) -> Sequence[Item]:
    """The items of a piece as they stand on the sheet: those of a dimension as one."""
    if isinstance(placed.piece, Dimension) and items:
        return [dimensioned(placed, placed.piece, items)]
    return list(items)


def _grip(placed: PlacedPiece, items: Sequence[FlatItem]) -> list[FlatItem]:
    """What of a piece is taken hold of: not its extension lines and leaders, which cross the drawing."""
    if isinstance(placed.piece, Note):
        return [item for item in items if isinstance(item, Text)]
    if isinstance(placed.piece, Dimension):
        return [item for item in items if not isinstance(item, Path) or item.pen == STROKE_PEN]
    return list(items)


def _words(placed: PlacedPiece, items: Sequence[FlatItem]) -> str:
    """What a piece says; of a schedule its heading."""
    if placed.table is not None:
        return placed.table.title
    return " ".join(item.text for item in items if isinstance(item, Text))


def piece_boxes(drawn: Iterable[tuple[PlacedPiece, Sequence[FlatItem]]]) -> tuple[PieceBox, ...]:
    """Where each piece lies, what it is attached to, and how it stands."""
    found = []
    for placed, items in drawn:
        # What measures nothing any more can still be taken hold of, where it was.
        boxes = [bounds_of(item) for item in _grip(placed, items)]
        boxes = boxes or [Box(x, y, 0.0, 0.0) for x, y in placed.points]
        viewport = placed.viewport.id if placed.viewport else ""
        stood = placed.stood
        found.append(
            PieceBox(
                placed.id,
                placed.piece.kind,
                viewport,
                union(boxes),
                _words(placed, items),
                placed.points,
                stood.at,
                stood.standing,
                stood.words,
                is_typed_over(placed.piece),
            )
        )
    return tuple(found)
