"""The front end: from a sheet to its display list, lowest first: drawings, border, marks, titles, template;
where a viewport hides what is below, those below it are whole before it begins."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace

from drafting.annotation.pieces import PlacedPiece
from drafting.linework.model import ROLES
from drafting.render.annotation_items import DrawnPieces, drawn_piece
from drafting.render.backends.extents import bounds_of
from drafting.render.border import border_items
from drafting.render.climb_items import climb_items
from drafting.render.display_list import DisplayList, FieldBox, Link, RoomBox, TitleBox, TouchUpFound
from drafting.render.drawing_list import drawing_list_items, kept_within, list_box
from drafting.render.drawing_title import drawing_title_items, title_box
from drafting.render.items import Drawing, Fill, FlatItem, Hatched, Item, Shaded
from drafting.render.mark_items import grid_items, level_items, mark_items
from drafting.render.room_items import LAYER as ROOM_LAYER
from drafting.render.room_items import ROOM_TINT, room_box, room_items
from drafting.render.shadow_items import shadow_items
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
    pieces: Iterable[PlacedPiece] | DrawnPieces = (),
) -> DisplayList:
    """Everything on a sheet, with the pieces of annotation on it: drawn with a pen table, or where a viewport
    names one of `tables`, with that. Whoever has drawn the pieces already gives them so."""
    annotation = pieces if isinstance(pieces, DrawnPieces) else DrawnPieces.of(pieces)
    marked = [(viewport, sheet.marks.get(viewport.id, ViewportMarks())) for viewport in sheet.viewports]
    grids = {viewport.id: list(grid_items(about.grid, viewport.id)) for viewport, about in marked}
    marks = {viewport.id: list(mark_items(about.marks, viewport.id)) for viewport, about in marked}
    levels = {viewport.id: list(level_items(about.levels, viewport.id)) for viewport, about in marked}
    dimensions = [
        item for placed, own in annotation.drawn if placed.piece.kind == "dimension" for item in own
    ]
    below = _reach_down([dimensions, *grids.values(), *marks.values(), *levels.values()])
    listed = sheet.drawing_list and kept_within(sheet.drawing_list, sheet.blank.frame)
    items: list[Item] = []
    layers = _layers(marked)
    for number, layer in enumerate(layers):
        last = number == len(layers) - 1
        own = {viewport.id for viewport, _ in layer}
        # A view that was never drawn has only its title yet.
        for viewport, _ in layer:
            if viewport.linework:
                items += _drawing(viewport, (tables or {}).get(viewport.pen_table, table), sheet)
        items += border_items(sheet.blank) if last else ()
        for about_them in (grids, marks, levels):
            items += (item for viewport, _ in layer for item in about_them[viewport.id])
        # Names of rooms keep away what lies under them: the line of a section too.
        items += (item for viewport, about in layer for item in _on_floors(viewport, about))
        items += (
            item
            for placed, parts in annotation.drawn
            if (placed.viewport.id in own if placed.viewport else last)
            for item in drawn_piece(placed, parts)
        )
        items += (
            item
            for viewport, about in layer
            for item in drawing_title_items(viewport, about.north, below[viewport.id])
        )
    items += drawing_list_items(listed, sheet.words) if listed else ()
    items += template_items(sheet)
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
        annotation.boxes,
        sheet.blank.frame,
        sheet.blank.shrink,
        tuple(
            TouchUpFound(viewport.id, each.id, each.redrawn is not None)
            for viewport, _ in marked
            for each in viewport.touched.touch_ups
        ),
    )


def _layers(
    marked: Sequence[tuple[Viewport, ViewportMarks]],
) -> list[list[tuple[Viewport, ViewportMarks]]]:
    """Viewports that lie over each other as they are: one that hides what is below begins a new layer, which
    is over the marks and titles of those before it as well."""
    layers: list[list[tuple[Viewport, ViewportMarks]]] = [[]]
    for viewport, about in marked:
        if viewport.opaque and layers[-1]:
            layers.append([])
        layers[-1].append((viewport, about))
    return layers


def _reach_down(items: Iterable[Iterable[Item]]) -> Mapping[str, float]:
    """How far down on the sheet what belongs to each viewport reaches, mm."""
    lowest: dict[str, float] = defaultdict(lambda: math.inf)
    for own in items:
        by_source: dict[str, list[Item]] = defaultdict(list)
        for item in own:
            by_source[getattr(item, "viewport", "")].append(item)
        for source, some in by_source.items():
            lowest[source] = min(lowest[source], bounds_of(*some).y)
    return lowest


def _on_floors(viewport: Viewport, about: ViewportMarks) -> Iterator[FlatItem]:
    """What is written on stairs and in rooms."""
    floor = ROOM_TINT if about.filled else PAPER
    yield from climb_items(about.climbs, viewport.id, floor)
    yield from room_items(about.rooms, viewport.id, floor)


def _drawing(
    viewport: Viewport, table: PenTableSpec, sheet: Sheet
) -> Iterator[FlatItem | Hatched | Shaded | Drawing]:
    """A viewport's drawing, over its picture and the rooms that are filled in it."""
    filled = sheet.marks.get(viewport.id, ViewportMarks()).filled
    drawing = drawing_of(viewport, table)
    if (filled or viewport.picture or viewport.shadow) and drawing.opaque:
        yield Fill((viewport.outline,), PAPER, ROOM_LAYER, viewport.id)
        drawing = replace(drawing, opaque=False)
    if viewport.picture:
        yield Shaded(viewport.picture, viewport.id, viewport.box, viewport.outline)
    for rings in filled:
        yield Fill(rings, ROOM_TINT, ROOM_LAYER, viewport.id)
    yield from shadow_items(viewport)
    yield drawing


def drawing_of(viewport: Viewport, table: PenTableSpec = CONSTRUCTION) -> Drawing:
    """A viewport's window on its linework, drawn with a pen table and with what differs from it there."""
    lines = viewport.appearance.has_lines
    cuts = tuple(cut.as_tone for cut in table.cuts) if viewport.touched.tones else table.cuts
    return Drawing(
        viewport=viewport.id,
        linework=viewport.linework,
        clip=viewport.outline,
        ratio=float(viewport.scale.ratio),
        turn=viewport.turn,
        place=viewport.to_paper(0.0, 0.0),
        pens={role: table.pens[role].changed(viewport.pens.roles.get(role)) for role in ROLES if lines},
        layers={name: change.change for name, change in table.layers.items()} | dict(viewport.pens.layers),
        cuts=cuts if lines else (),
        outline=OUTLINE_PEN if viewport.framed else None,
        opaque=viewport.opaque,
        redrawn=viewport.touched.redrawn if lines else (),
    )
