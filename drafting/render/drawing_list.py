"""The list of drawings: a table of the set's sheets, kept by itself."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from itertools import accumulate

from drafting.geometry.boxes import Box
from drafting.render.items import Fill, Path, Text
from drafting.sheets.sheet import DrawingList
from drafting.sheets.words import ENGLISH, SheetWords
from drafting.styles.lettering import fit
from drafting.styles.pens import BLOCK_PEN, INK, PAPER, RULE_PEN

LAYER = "List of drawings"
COLUMNS = (("Number", 24.0), ("Title", 92.0), ("Paper", 18.0), ("Scale", 26.0), ("Revision", 18.0))
#: The column of an issue: its date, with its purpose below, and the revision that each sheet had in it.
ISSUE = 22.0
HEADING, ROW = 8.0, 6.0
HEADING_SIZE, CAPTION_SIZE, SIZE, PADDING = 3.5, 1.8, 2.5, 1.5
TITLE = "List of drawings"


def list_box(table: DrawingList) -> Box:
    """Where the table lies on its sheet: its origin is its upper left corner."""
    height = HEADING + ROW * (len(table.rows) + 1)
    x, y = table.at
    return Box(x, y - height, sum(_widths(table)), height)


def kept_within(table: DrawingList, frame: Box) -> DrawingList:
    """A table that grows to the right moves to the left before it reaches beyond the frame."""
    beyond = list_box(table).right - frame.right
    if beyond <= 0:
        return table
    return replace(table, at=(max(table.at[0] - beyond, frame.x), table.at[1]))


def _widths(table: DrawingList) -> list[float]:
    return [*(width for _, width in COLUMNS), *(ISSUE for _ in table.issues)]


def drawing_list_items(table: DrawingList, said: SheetWords = ENGLISH) -> Iterator[Fill | Path | Text]:
    """Heading, captions, and a row for each sheet; what is too long for its column shrinks or is
    shortened."""
    box = list_box(table)
    widths = _widths(table)
    lefts = [box.x + offset for offset in accumulate(widths, initial=0.0)]
    yield Fill((box.corners,), PAPER, LAYER)
    base = box.top - HEADING + 2.5
    yield Text((box.x + PADDING, base), said.caption(TITLE), HEADING_SIZE, INK, bold=True, layer=LAYER)
    y = box.top - HEADING
    captions = (*(said.caption(name) for name, _ in COLUMNS), *(date for date, _ in table.issues))
    for number, row in enumerate((captions, *table.rows)):
        yield Path(((box.x, y), (box.right, y)), RULE_PEN, LAYER)
        for k, (left, width, words) in enumerate(zip(lefts, widths, row, strict=False)):
            if words:
                text, size = fit(words, SIZE if number else CAPTION_SIZE, width - 2 * PADDING)
                # What an issue was for stands below its date.
                up = 1.6 if k >= len(COLUMNS) and not number else 0.0
                yield Text((left + PADDING, y - ROW + 1.8 + up), text, size, INK, layer=LAYER)
        y -= ROW
    for left, (_, purpose) in zip(lefts[len(COLUMNS) :], table.issues, strict=False):
        text, size = fit(purpose, CAPTION_SIZE, ISSUE - 2 * PADDING)
        yield Text((left + PADDING, box.top - HEADING - ROW + 0.9), text, size, INK, layer=LAYER)
    for x in lefts[1:-1]:
        yield Path(((x, box.y), (x, box.top - HEADING)), RULE_PEN, LAYER)
    yield Path(box.corners, BLOCK_PEN, LAYER, closed=True)
