"""From a sheet to its display list: border, drawings, drawing titles, title block."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from drafting.plot.border import border_items
from drafting.plot.display import DisplayList, Drawing, Path, Text
from drafting.plot.lettering import text_width
from drafting.plot.pens import CUT_FILL, INK, OUTLINE_PEN, ROLE_PENS, TITLE_PEN
from drafting.plot.title_block import title_block_items
from drafting.sheets.sheet import Sheet
from drafting.sheets.viewport import Viewport

#: A drawing title hangs this far below its viewport; mm.
TITLE_DROP = 4.0
NUMBER_SIZE, NAME_SIZE, SCALE_SIZE = 5.0, 3.5, 2.5
LAYER = "Drawing titles"


def compose(sheet: Sheet) -> DisplayList:
    """Everything on a sheet, lowest first."""
    items = [
        # A view that was never drawn has only its title yet.
        *(drawing_of(viewport) for viewport in sheet.viewports if viewport.linework),
        *border_items(sheet.paper),
        *(item for viewport in sheet.viewports for item in _drawing_title(viewport)),
        *title_block_items(sheet),
    ]
    return DisplayList(sheet.paper.width, sheet.paper.height, tuple(items))


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


def _drawing_title(viewport: Viewport) -> Iterator[Path | Text]:
    """Number, name and scale under a viewport, on a rule as long as they need."""
    if not viewport.number and not viewport.name:
        return
    x, rule = viewport.box.x, viewport.box.y - TITLE_DROP
    indent = x + text_width(viewport.number, NUMBER_SIZE, bold=True) + 4.0 if viewport.number else x
    scale = viewport.scale_text
    end = max(indent + text_width(viewport.name, NAME_SIZE, bold=True), indent + text_width(scale, SCALE_SIZE)) + 2.0
    source = (viewport.id, "")
    yield Path(np.array([(x, rule), (end, rule)]), TITLE_PEN, LAYER, source)
    for text, left, drop, size, bold in (
        (viewport.number, x, 2.0, NUMBER_SIZE, True),
        (viewport.name, indent, 2.0, NAME_SIZE, True),
        (scale, indent, 4.0 + NAME_SIZE, SCALE_SIZE, False),
    ):
        yield Text((left, rule - drop - size), text, size, INK, bold=bold, layer=LAYER, source=source)
