"""Where annotation stands on sheets, and all that it says there."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
import shapely
from django.db.models import Q

from drafting.annotation.clouds import Cloud
from drafting.annotation.dimensions import Dimension
from drafting.annotation.fields import ROOM, element_fields, filled_in, has_fields, room_fields
from drafting.annotation.images import ImagePiece
from drafting.annotation.measures import Measure
from drafting.annotation.notes import Note
from drafting.annotation.numbered_notes import NumberedNote
from drafting.annotation.piece import Location
from drafting.annotation.pieces import AnyPiece, PieceKind, PlacedPiece
from drafting.annotation.schedules import Schedule, element_entry, room_entries
from drafting.annotation.styles import dimension_style, in_text_style, table_in_style
from drafting.annotation.symbols import Symbol
from drafting.annotation.tables import FreeTable, free_table
from drafting.annotation.tags import Tag, tag_lines
from drafting.building.rooms import Room
from drafting.sheets import sheet as core
from drafting.sheets.fields import FIELDS
from drafting.sheets.viewport import Viewport as CoreViewport
from server.annotations.drawn import corners_of
from server.annotations.known import Known
from server.annotations.listing import table_of
from server.annotations.models import Annotation
from server.sheets.models import Sheet, Viewport
from server.sheets.whole_set import WholeSet

#: What lies this near to a viewport's outline is still seen in it, paper mm.
_ON_EDGE = 0.5


@dataclass(frozen=True)
class _Place:
    """What a piece is asked to be shown with.

    Attributes:
        drawing: the axes of the drawing that it is on; empty for the bare sheet.
        feet: whether that is at a scale in feet and inches.
        notes: the ids of the numbered notes on its sheet.
    """

    known: Known
    made: core.Sheet
    notes: tuple[str, ...]
    drawing: Mapping[str, Any]
    feet: bool = False


def pieces_on(
    sheet: Sheet, viewport_rows: Sequence[Viewport], made: core.Sheet, whole: WholeSet
) -> Iterator[PlacedPiece]:
    """The pieces that are seen on a sheet: those that stand on it, and those of the views that are placed
    there, the lowest first."""
    viewports = {str(row.pk): row for row in viewport_rows}
    views = [row.view_id for row in viewports.values() if row.annotation]
    pieces = Annotation.objects.filter(Q(sheet=sheet) | Q(view__in=views))
    found = whole.readable(sheet, pieces, lambda row: row.as_core)
    rows = [(row, piece) for row, piece in found if _is_current(piece, sheet)]
    if not rows:
        return
    known = Known.of(sheet.project, whole)
    notes = tuple(piece.note for _, piece in rows if isinstance(piece, NumberedNote))
    for viewport in made.viewports:
        row = viewports[viewport.id]
        drawing = row.drawn.linework
        axes = drawing.axes if drawing is not None else {}
        place = _Place(known, made, notes, axes, row.scale_in_feet)
        for standing, piece in rows:
            of_view = row.annotation and standing.view_id == row.view_id
            if of_view or standing.viewport_id == row.pk:
                placed = _placed(standing, piece, whole, viewport, row)
                if not of_view or _is_seen(placed, viewport):
                    yield _said(placed, place)
    bare = _Place(known, made, notes, {})
    for standing, piece in rows:
        if standing.sheet_id is not None and standing.viewport_id is None:
            yield _said(_placed(standing, piece, whole), bare)


def _is_current(piece: AnyPiece, sheet: Sheet) -> bool:
    """Whether a piece is shown: a cloud is gone once its sheet has another revision, unless it is kept."""
    return not isinstance(piece, Cloud) or piece.kept or piece.revision in ("", sheet.revision)


def _placed(
    standing: Annotation,
    piece: AnyPiece,
    whole: WholeSet,
    viewport: CoreViewport | None = None,
    row: Viewport | None = None,
) -> PlacedPiece:
    drawing = row.drawn.linework if row is not None else None
    zero = drawing.axes["origin"][2] if drawing is not None and drawing.axes else 0.0
    of_building = row is not None and not row.view.is_received
    corners = corners_of(drawing, *((whole.grid, whole.storeys) if of_building else ()))
    return PlacedPiece(str(standing.pk), piece, piece.locate(corners), viewport, zero)


def _is_seen(placed: PlacedPiece, viewport: CoreViewport) -> bool:
    """Whether some of what a piece is attached to lies within the outline of a viewport."""
    outline = shapely.Polygon(viewport.outline).buffer(_ON_EDGE)
    return any(outline.covers(shapely.Point(point)) for point in placed.points)


def _said(placed: PlacedPiece, place: _Place) -> PlacedPiece:
    """A piece with what it says beside its own words."""
    maker = _SAYS.get(placed.piece.kind)
    return maker(placed, placed.piece, place) if maker else placed


def _note(placed: PlacedPiece, note: Note, place: _Place) -> PlacedPiece:
    styled = in_text_style(note, place.known.styles)
    if isinstance(styled, Note) and has_fields(styled.text):
        styled = replace(styled, text=filled_in(styled.text, _field_values(placed, styled, place)))
    return replace(placed, piece=styled)


def _field_values(placed: PlacedPiece, note: Note, place: _Place) -> dict[str, str]:
    """What fields of a note stand for: of its sheet, of the element that it is attached to, and of the room
    that it points into."""
    given = place.made.field_values
    values = {field.caption: given[key] for key, field in FIELDS.items() if key in given}
    element = place.known.elements.get(note.at.element)
    if element is not None:
        values |= element_fields(element_entry(element), place.feet)
    if ROOM.casefold() in note.text.casefold() and place.drawing and placed.location.at:
        room = room_at(place.known.whole.rooms, place.drawing, placed.location.at[0])
        if room is not None:
            (entry,) = room_entries([room], place.known.whole.storeys, place.known.data.spaces)
            values |= room_fields(entry, place.feet)
    return values


def room_at(rooms: Iterable[Room], axes: Mapping[str, Any], at: tuple[float, float]) -> Room | None:
    """The room at a point of a drawing from above: the one whose floor is nearest to that of the drawing."""
    right, up, origin = (np.array(axes[name]) for name in ("right", "up", "origin"))
    if abs(right[2]) > 1e-6 or abs(up[2]) > 1e-6:
        return None
    x, y, z = origin + at[0] * right + at[1] * up
    found = [room for room in rooms if room.outline and room.shape.covers(shapely.Point(x, y))]
    return min(found, key=lambda room: abs(room.floor - z), default=None)


def _numbered(placed: PlacedPiece, note: NumberedNote, place: _Place) -> PlacedPiece:
    listed = place.known.notes.get(note.note)
    if listed is None:
        return replace(
            placed, label=("?",), location=_lost(placed, "the note is no longer in the project's list")
        )
    return replace(placed, label=(listed.number,))


def _dimensioned(placed: PlacedPiece, piece: Dimension | Measure, place: _Place) -> PlacedPiece:
    return replace(placed, style=dimension_style(piece, place.known.styles))


def _tag(placed: PlacedPiece, tag: Tag, place: _Place) -> PlacedPiece:
    element = tag.at.element
    wanted = place.known.elements.get(element) if tag.shows == "value" or not element else None
    if element not in place.known.openings:
        wanted = place.known.elements.get(element)
    return replace(placed, label=tag_lines(tag, place.known.openings.get(element), wanted))


def _schedule(placed: PlacedPiece, schedule: Schedule, place: _Place) -> PlacedPiece:
    made = table_of(schedule, place.known, place.notes)
    return replace(placed, table=table_in_style(made, schedule.named, place.known.styles))


def _table(placed: PlacedPiece, table: FreeTable, place: _Place) -> PlacedPiece:
    made = table_in_style(free_table(table), table.named, place.known.styles)
    placed = replace(placed, table=made)
    if not table.file:
        return placed
    file = place.known.table_files.get(table.file)
    if file is None:
        return replace(placed, location=_lost(placed, "the file that it came from is no longer here"))
    name, now = file
    if now == table.file_hash:
        return placed
    return replace(placed, location=replace(placed.location, standing="changed", words=f"“{name}” is newer"))


def _symbol(placed: PlacedPiece, symbol: Symbol, place: _Place) -> PlacedPiece:
    found = place.known.symbols.get(symbol.symbol)
    if found is None:
        return replace(placed, location=_lost(placed, "the symbol is no longer in the library"))
    name, drawn = found
    return replace(placed, label=(name,), symbol=drawn)


def _image(placed: PlacedPiece, image: ImagePiece, place: _Place) -> PlacedPiece:
    picture = place.known.pictures.get(image.picture)
    if picture is None:
        return replace(placed, location=_lost(placed, "its picture is no longer here"))
    return replace(placed, picture=picture)


def _lost(placed: PlacedPiece, words: str) -> Location:
    return replace(placed.location, standing="lost", words=words)


_SAYS: Mapping[PieceKind, Callable[[PlacedPiece, Any, _Place], PlacedPiece]] = {
    "note": _note,
    "numbered": _numbered,
    "dimension": _dimensioned,
    "measure": _dimensioned,
    "tag": _tag,
    "schedule": _schedule,
    "table": _table,
    "symbol": _symbol,
    "image": _image,
}
