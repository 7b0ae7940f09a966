"""From a sheet to its display list: border, drawings with their marks, drawing titles, and its template filled in."""

from __future__ import annotations

from drafting.plot.border import border_items
from drafting.plot.display import DisplayList, Drawing, FieldBox, Link, TitleBox
from drafting.plot.drawing_list import drawing_list_items, list_box
from drafting.plot.drawing_title import drawing_title_items, title_box
from drafting.plot.mark_items import grid_items, level_items, mark_items
from drafting.plot.pens import CUT_FILL, OUTLINE_PEN, ROLE_PENS
from drafting.plot.template_items import template_items
from drafting.sheets.marks import Annotation
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport


def compose(sheet: Sheet) -> DisplayList:
    """Everything on a sheet, lowest first."""
    annotated = [(viewport, sheet.annotations.get(viewport.id, Annotation())) for viewport in sheet.viewports]
    items = [
        # A view that was never drawn has only its title yet.
        *(drawing_of(viewport) for viewport in sheet.viewports if viewport.linework),
        *border_items(sheet.blank),
        *(item for viewport, about in annotated for item in grid_items(about.grid, (viewport.id, ""))),
        *(item for viewport, about in annotated for item in mark_items(about.marks, (viewport.id, ""))),
        *(item for viewport, about in annotated for item in level_items(about.levels, (viewport.id, ""))),
        *(item for viewport, about in annotated for item in drawing_title_items(viewport, about.north)),
        *(drawing_list_items(sheet.drawing_list) if sheet.drawing_list else ()),
        *template_items(sheet),
    ]
    links = (
        Link(viewport.id, mark.subject, at)
        for viewport, about in annotated
        for mark in about.marks
        for at in mark.bubbles
    )
    tables = (list_box(sheet.drawing_list),) if sheet.drawing_list else ()
    fields = (
        FieldBox(part.field, sheet.blank.box_of(part), part.field in sheet.typed)
        for part in sheet.template.parts
        if part.kind == "field"
    )
    titles = ((viewport.id, title_box(viewport, about.north)) for viewport, about in annotated)
    return DisplayList(
        sheet.paper.width,
        sheet.paper.height,
        tuple(items),
        tuple(links),
        tables,
        tuple(fields),
        tuple(TitleBox(viewport, box) for viewport, box in titles if box),
        sheet.blank.frame,
        tuple(sheet.blank.ends_of(part) for part in sheet.template.parts),
        sheet.blank.shrink,
    )


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
