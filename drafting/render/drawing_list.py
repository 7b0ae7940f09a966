"""The list of drawings: a table of the set's sheets, kept by itself."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import accumulate

from drafting.geometry.boxes import Box
from drafting.render.items import Fill, Path, Text
from drafting.sheets.sheet import DrawingList
from drafting.styles.lettering import fit
from drafting.styles.pens import BLOCK_PEN, INK, PAPER, RULE_PEN

LAYER = "List of drawings"
COLUMNS = (("Number", 24.0), ("Title", 92.0), ("Paper", 18.0), ("Scale", 26.0), ("Revision", 18.0))
WIDTH = sum(width for _, width in COLUMNS)
HEADING, ROW = 8.0, 6.0
HEADING_SIZE, CAPTION_SIZE, SIZE, PADDING = 3.5, 1.8, 2.5, 1.5
TITLE = "List of drawings"


def list_box(table: DrawingList) -> Box:
    """Where the table lies on its sheet: its origin is its upper left corner."""
    height = HEADING + ROW * (len(table.rows) + 1)
    x, y = table.at
    return Box(x, y - height, WIDTH, height)


def drawing_list_items(table: DrawingList) -> Iterator[Fill | Path | Text]:
    """Heading, captions, and a row for each sheet; what is too long for its column shrinks or is
    shortened."""
    box = list_box(table)
    lefts = [box.x + offset for offset in accumulate((width for _, width in COLUMNS), initial=0.0)]
    yield Fill((box.corners,), PAPER, LAYER)
    base = box.top - HEADING + 2.5
    yield Text((box.x + PADDING, base), TITLE, HEADING_SIZE, INK, bold=True, layer=LAYER)
    y = box.top - HEADING
    for number, row in enumerate((tuple(name for name, _ in COLUMNS), *table.rows)):
        yield Path(((box.x, y), (box.right, y)), RULE_PEN, LAYER)
        for left, (_, width), words in zip(lefts, COLUMNS, row, strict=False):
            if words:
                text, size = fit(words, SIZE if number else CAPTION_SIZE, width - 2 * PADDING)
                yield Text((left + PADDING, y - ROW + 1.8), text, size, INK, layer=LAYER)
        y -= ROW
    for x in lefts[1:-1]:
        yield Path(((x, box.y), (x, box.top - HEADING)), RULE_PEN, LAYER)
    yield Path(box.corners, BLOCK_PEN, LAYER, closed=True)
