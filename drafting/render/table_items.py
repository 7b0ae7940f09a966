"""Tables as they are drawn: a heading, captions, and rows; each column as wide as its words need."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import accumulate
from typing import Literal

from drafting.annotation.schedules import Table
from drafting.geometry.boxes import Box, Point
from drafting.render.items import Fill, FlatItem, Path, Text
from drafting.styles.lettering import text_width
from drafting.styles.pens import BLOCK_PEN, INK, PAPER, RULE_PEN

LAYER = "Schedules"
HEADING, ROW = 8.0, 5.5
HEADING_SIZE, CAPTION_SIZE, SIZE, PADDING = 3.5, 1.8, 2.5, 1.8
#: No column is narrower, mm.
MIN_COLUMN = 14.0


def table_items(table: Table, corner: Point, source: str = "") -> Iterator[FlatItem]:
    """A table whose upper left corner lies at `corner`."""
    rows = (*table.rows, table.total) if table.total else table.rows
    widths = [
        max(
            MIN_COLUMN,
            text_width(caption, CAPTION_SIZE) + 2 * PADDING,
            *(text_width(row[k], SIZE) + 2 * PADDING for row in table.rows),
            # What stands below the rows may run on where the columns beside it are blank.
            text_width(table.total[k], SIZE) + 2 * PADDING if table.total and k else 0.0,
        )
        for k, caption in enumerate(table.captions)
    ]
    wide = max(sum(widths), text_width(table.title, HEADING_SIZE, bold=True) + 2 * PADDING)
    widths[-1] += wide - sum(widths)
    x, top = corner
    height = HEADING + ROW * (len(rows) + 1)
    box = Box(x, top - height, wide, height)
    yield Fill((box.corners,), PAPER, LAYER, source)
    at = x + PADDING, top - HEADING + 2.5
    yield Text(at, table.title, HEADING_SIZE, INK, bold=True, layer=LAYER, viewport=source)
    lefts = [x + offset for offset in accumulate(widths, initial=0.0)]
    for number, row in enumerate((table.captions, *rows)):
        y = top - HEADING - number * ROW
        yield Path(((x, y), (box.right, y)), RULE_PEN, LAYER, source)
        size = SIZE if number else CAPTION_SIZE
        for k, words in enumerate(row):
            if words:
                right = k in table.figures
                at = lefts[k + 1] - PADDING if right else lefts[k] + PADDING, y - ROW + 1.5
                anchor: Literal["start", "end"] = "end" if right else "start"
                yield Text(at, words, size, INK, anchor=anchor, layer=LAYER, viewport=source)
    foot = box.y + (ROW if table.total else 0.0)
    for left in lefts[1:-1]:
        yield Path(((left, foot), (left, top - HEADING)), RULE_PEN, LAYER, source)
    yield Path(box.corners, BLOCK_PEN, LAYER, source, closed=True)
