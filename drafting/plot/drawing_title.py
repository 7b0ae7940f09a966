"""The title under a drawing: its number, name and scale, and where wanted a scale bar and a north point."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from drafting.plot.display import Path, Text
from drafting.plot.lettering import text_width
from drafting.plot.mark_items import NORTH, Item, bar_width, north_items, scale_bar_items
from drafting.plot.pens import INK, TITLE_PEN
from drafting.sheets.viewport import Point, Viewport

#: A drawing title hangs this far below its viewport; mm.
TITLE_DROP = 4.0
NUMBER_SIZE, NAME_SIZE, SCALE_SIZE = 5.0, 3.5, 2.5
#: Between the words and a scale bar, and between that and a north point; mm.
GAP = 8.0
LAYER = "Drawing titles"


def drawing_title_items(viewport: Viewport, north: Point | None = None) -> Iterator[Item]:
    """The title of a viewport, on a rule as long as its words need. `north` is the way to it on paper, for plans."""
    if viewport.title == "none" or not (viewport.number or viewport.name):
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
    if viewport.title in ("bar", "north") and viewport.to_scale:
        yield from scale_bar_items((end + GAP, rule - 9.0), viewport.scale, source)
        end += GAP + bar_width(viewport.scale)
    if viewport.title == "north" and north:
        yield from north_items((end + GAP + NORTH, rule - 6.0), north, source)
