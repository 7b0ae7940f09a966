"""The front end: from a sheet to its display list, lowest first: drawings, border, marks, titles,
template."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace

from drafting.annotation.pieces import PlacedPiece
from drafting.linework.model import ROLES
from drafting.render.annotation_items import drawn_piece, piece_boxes, piece_items
from drafting.render.backends.extents import bounds_of
from drafting.render.border import border_items
from drafting.render.climb_items import climb_items
from drafting.render.display_list import DisplayList, FieldBox, Link, RoomBox, TitleBox
from drafting.render.drawing_list import drawing_list_items, kept_within, list_box
from drafting.render.drawing_title import drawing_title_items, title_box
from drafting.render.items import Drawing, Fill, FlatItem
from drafting.render.mark_items import grid_items, level_items, mark_items
from drafting.render.room_items import LAYER as ROOM_LAYER
from drafting.render.room_items import ROOM_TINT, room_box, room_items
from drafting.render.template_items import template_items
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport
from drafting.sheets.viewport_marks import ViewportMarks
from drafting.styles.pen_presets import CONSTRUCTION
from drafting.styles.pen_table import PenTableSpec
from drafting.styles.pens import OUTLINE_PEN, PAPER


def compose(
    sheet: Sheet,
    table: PenTableSpec = CONSTRUCTION,
    tables: Mapping[str, PenTableSpec] | None = None,
    pieces: Sequence[PlacedPiece] = (),
) -> DisplayList:
    """Everything on a sheet, with the pieces of annotation on it: drawn with a pen table, or where a viewport
    names one of `tables`, with that."""
    annotation = [(placed, piece_items(placed)) for placed in pieces]
    marked = [(viewport, sheet.marks.get(viewport.id, ViewportMarks())) for viewport in sheet.viewports]
    grids = {viewport.id: list(grid_items(about.grid, viewport.id)) for viewport, about in marked}
    marks = {viewport.id: list(mark_items(about.marks, viewport.id)) for viewport, about in marked}
    levels = {viewport.id: list(level_items(about.levels, viewport.id)) for viewport, about in marked}
    dimensions = [item for placed, own in annotation if placed.piece.kind == "dimension" for item in own]
    below = _reach_down([dimensions, *grids.values(), *marks.values(), *levels.values()])
    # A view that was never drawn has only its title yet.
    drawn = [viewport for viewport in sheet.viewports if viewport.linework]
    listed = sheet.drawing_list and kept_within(sheet.drawing_list, sheet.blank.frame)
    items = [
        *(
            item
            for viewport in drawn
            for item in _drawing(viewport, (tables or {}).get(viewport.pen_table, table), sheet)
        ),
        *border_items(sheet.blank),
        *(item for own in (*grids.values(), *marks.values(), *levels.values()) for item in own),
        # Names of rooms keep away what lies under them: the line of a section too.
        *(item for viewport, about in marked for item in _on_floors(viewport, about)),
        *(item for placed, own in annotation for item in drawn_piece(placed, own)),
        *(
            item
            for viewport, about in marked
            for item in drawing_title_items(viewport, about.north, below[viewport.id])
        ),
        *(drawing_list_items(listed) if listed else ()),
        *template_items(sheet),
    ]
    links = (
        Link(viewport.id, mark.subject, at)
        for viewport, about in marked
        for mark in about.marks
        for at in mark.bubbles
    )
    fields = (
        FieldBox(part.field, sheet.blank.box_of(part), part.field in sheet.overrides)
        for part in sheet.template.parts
        if part.kind == "field"
    )
    titles = (
        (viewport.id, title_box(viewport, about.north, below[viewport.id])) for viewport, about in marked
    )
    return DisplayList(
        sheet.paper.width,
        sheet.paper.height,
        tuple(items),
        tuple(links),
        (list_box(listed),) if listed else (),
        tuple(fields),
        tuple(TitleBox(viewport, box) for viewport, box in titles if box),
        tuple(
            RoomBox(viewport.id, tag.room, tag.name or tag.number or tag.area, room_box(tag))
            for viewport, about in marked
            for tag in about.rooms
        ),
        piece_boxes(annotation),
        sheet.blank.frame,
        sheet.blank.shrink,
    )


def _reach_down(items: Iterable[Iterable[FlatItem]]) -> Mapping[str, float]:
    """How far down on the sheet what belongs to each viewport reaches, mm."""
    lowest: dict[str, float] = defaultdict(lambda: math.inf)
    for own in items:
        for item in own:
            lowest[item.viewport] = min(lowest[item.viewport], bounds_of(item).y)
    return lowest


def _on_floors(viewport: Viewport, about: ViewportMarks) -> Iterator[FlatItem]:
    """What is written on stairs and in rooms."""
    floor = ROOM_TINT if about.filled else PAPER
    yield from climb_items(about.climbs, viewport.id, floor)
    yield from room_items(about.rooms, viewport.id, floor)


def _drawing(viewport: Viewport, table: PenTableSpec, sheet: Sheet) -> Iterator[FlatItem | Drawing]:
    """A viewport's drawing, over the rooms that are filled in it."""
    filled = sheet.marks.get(viewport.id, ViewportMarks()).filled
    drawing = drawing_of(viewport, table)
    if filled and drawing.opaque:
        yield Fill((viewport.outline,), PAPER, ROOM_LAYER, viewport.id)
        drawing = replace(drawing, opaque=False)
    for rings in filled:
        yield Fill(rings, ROOM_TINT, ROOM_LAYER, viewport.id)
    yield drawing


def drawing_of(viewport: Viewport, table: PenTableSpec = CONSTRUCTION) -> Drawing:
    """A viewport's window on its linework, drawn with a pen table and with what differs from it there."""
    return Drawing(
        viewport=viewport.id,
        linework=viewport.linework,
        clip=viewport.outline,
        ratio=float(viewport.scale.ratio),
        turn=viewport.turn,
        place=viewport.to_paper(0.0, 0.0),
        pens={role: table.pens[role].changed(viewport.pens.roles.get(role)) for role in ROLES},
        layers={name: change.change for name, change in table.layers.items()} | dict(viewport.pens.layers),
        cuts=table.cuts,
        outline=OUTLINE_PEN if viewport.framed else None,
        opaque=viewport.opaque,
    )
