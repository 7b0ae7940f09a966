"""From a sheet to its display list: border, drawings with their marks, drawing titles, title block."""

from __future__ import annotations

from drafting.plot.border import border_items
from drafting.plot.display import DisplayList, Drawing, Link
from drafting.plot.drawing_list import drawing_list_items, list_box
from drafting.plot.drawing_title import drawing_title_items
from drafting.plot.mark_items import level_items, mark_items
from drafting.plot.pens import CUT_FILL, OUTLINE_PEN, ROLE_PENS
from drafting.plot.title_block import title_block_items
from drafting.sheets.marks import Annotation
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport


def compose(sheet: Sheet) -> DisplayList:
    """Everything on a sheet, lowest first."""
    annotated = [(viewport, sheet.annotations.get(viewport.id, Annotation())) for viewport in sheet.viewports]
    items = [
        # A view that was never drawn has only its title yet.
        *(drawing_of(viewport) for viewport in sheet.viewports if viewport.linework),
        *border_items(sheet.paper),
        *(item for viewport, about in annotated for item in mark_items(about.marks, (viewport.id, ""))),
        *(item for viewport, about in annotated for item in level_items(about.levels, (viewport.id, ""))),
        *(item for viewport, about in annotated for item in drawing_title_items(viewport, about.north)),
        *(drawing_list_items(sheet.drawing_list) if sheet.drawing_list else ()),
        *title_block_items(sheet),
    ]
    links = (
        Link(viewport.id, mark.subject, at)
        for viewport, about in annotated
        for mark in about.marks
        for at in mark.bubbles
    )
    tables = (list_box(sheet.drawing_list),) if sheet.drawing_list else ()
    return DisplayList(sheet.paper.width, sheet.paper.height, tuple(items), tuple(links), tables)


def drawing_of(viewport: Viewport) -> Drawing:
    """A viewport's window on its linework."""
    return Drawing(
        viewport=viewport.id,
        linework=viewport.linework,
        clip=viewport.outline,
        ratio=float(viewport.scale.ratio),
        turn=viewport.turn,
        place=viewport.to_paper(0.0, 0.0),
        pens={role: pen.changed(viewport.pens.roles.get(role)) for role, pen in ROLE_PENS.items()},
        layers=dict(viewport.pens.layers),
        fill=CUT_FILL,
        outline=OUTLINE_PEN if viewport.framed else None,
        opaque=viewport.opaque,
    )
