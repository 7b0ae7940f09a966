"""A template laid on a sheet and filled in: title block, fixed text, pictures and the revision table."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from itertools import accumulate

from drafting.geometry.boxes import Box
from drafting.render.items import ANCHORS, Fill, Image, Path, Text
from drafting.render.picture_items import picture_items
from drafting.sheets.fields import Revision
from drafting.sheets.sheet import Sheet
from drafting.sheets.template import Part
from drafting.styles.lettering import LEADING, fit_lines
from drafting.styles.pens import INK, RULE_PEN, Pen

LAYER = "Title block"
#: Captions are small and lighter than what they caption. mm.
CAPTION, CAPTION_COLOUR = 1.8, "#5d646b"
PADDING = 2.0
#: The revision table: a row, and the widths of its columns; zero for what is left over. mm.
ROW, ROW_TEXT = 4.5, 1.8
COLUMNS = (("Revision", 12.5), ("Date", 17.0), ("Description", 0.0), ("Initials", 11.0))


Item = Path | Fill | Text | Image


def template_items(sheet: Sheet) -> Iterator[Item]:
    """Every part of a sheet's template, lowest first."""
    for part in sheet.template.parts:
        box = sheet.blank.box_of(part)
        # A box without a size is one that runs between two sides which have come too near.
        if part.kind == "line" or (box.width > 0 and box.height > 0):
            yield from _WRITERS[part.kind](sheet, part, box)


def _line(sheet: Sheet, part: Part, _box: Box) -> Iterator[Item]:
    x0, y0, x1, y1 = sheet.blank.ends_of(part)
    yield Path(((x0, y0), (x1, y1)), Pen(part.width or RULE_PEN.width, part.colour or INK), LAYER)


def _rectangle(_sheet: Sheet, part: Part, box: Box) -> Iterator[Item]:
    if part.fill:
        yield Fill((box.corners,), part.fill, LAYER)
    yield from _outline(part, box)


def _outline(part: Part, box: Box) -> Iterator[Item]:
    if part.width:
        yield Path(box.corners, Pen(part.width, part.colour or INK), LAYER, closed=True)


def _text(_sheet: Sheet, part: Part, box: Box) -> Iterator[Item]:
    yield from _outline(part, box)
    yield from _words(part, box, part.words, box.height)


def _field(sheet: Sheet, part: Part, box: Box) -> Iterator[Item]:
    yield from _outline(part, box)
    pad = _padding(part)
    room = box.height
    if part.words:
        (caption, *_), size = fit_lines(
            sheet.words.caption(part.words), CAPTION, (box.width - 2 * pad, CAPTION)
        )
        yield Text((box.x + pad, box.top - 1.2 - CAPTION), caption, size, CAPTION_COLOUR, layer=LAYER)
        room -= 1.2 + CAPTION + 0.8
    yield from _words(part, box, sheet.field_values.get(part.field, ""), room)


def _padding(part: Part) -> float:
    """Words keep away from a line round them."""
    return PADDING if part.width else 0.0


def _words(part: Part, box: Box, words: str, room: float) -> Iterator[Item]:
    """Words at the foot of a box, within `room` of its height."""
    if not words:
        return
    pad = _padding(part)
    # Larger lettering reaches deeper below its base line.
    foot = 1.0 + 0.25 * part.size if part.width else 0.3 * part.size
    lines, size = fit_lines(
        words, part.size, (box.width - 2 * pad, room - foot), part.lines, part.min_size, part.bold
    )
    x = {"left": box.x + pad, "middle": box.x + box.width / 2, "right": box.right - pad}[part.align]
    anchor = ANCHORS[part.align]
    for k, line in enumerate(reversed(lines)):
        at = (x, box.y + foot * size / part.size + k * size * LEADING)
        yield Text(at, line, size, part.colour or INK, anchor=anchor, bold=part.bold, layer=LAYER)


def _image(sheet: Sheet, part: Part, box: Box) -> Iterator[Item]:
    """A picture as large as its box lets it be, in the middle."""
    yield from _outline(part, box)
    picture = sheet.pictures.get(part.picture)
    if picture is None:
        return
    scale = min(box.width / picture.width, box.height / picture.height)
    width, height = picture.width * scale, picture.height * scale
    x, y = box.x + (box.width - width) / 2, box.y + (box.height - height) / 2
    yield from picture_items(picture, Box(x, y, width, height), LAYER)


def _revisions(sheet: Sheet, part: Part, box: Box) -> Iterator[Item]:
    """Captions, then a row for each revision, the newest last. Where there are too many, the oldest give
    way. In a table too narrow for its columns the description has a line of its own below the rest."""
    stacked, high, rows = _is_stacked(box), _row_height(box), revision_rows(box)
    if not rows:
        return
    pen = Pen(part.width or RULE_PEN.width, part.colour or INK)
    shown = sheet.revisions[-rows:]
    lefts = _lefts(box, [width for name, width in COLUMNS if not (stacked and name == "Description")])
    # A table that grows with the paper is as high as its rows, measured from the top.
    captions = Revision(*(sheet.words.caption(name) for name, _ in COLUMNS))
    for k, revision in enumerate((captions, *shown)):
        top = box.top - k * high
        colour = CAPTION_COLOUR if k == 0 else INK
        words = [revision.revision, revision.date, revision.description, revision.initials]
        if stacked:
            yield from _row([words.pop(2)], [box.x, box.right], top - ROW, colour)
            for x in lefts[1:-1]:
                yield Path(((x, top - ROW), (x, top)), pen, LAYER)
        yield from _row(words, lefts, top, colour)
        yield Path(((box.x, top - high), (box.right, top - high)), pen, LAYER)
    if not stacked:
        foot = box.top - (len(shown) + 1) * ROW if part.up == "both" else box.y
        for x in lefts[1:-1]:
            yield Path(((x, foot), (x, box.top)), pen, LAYER)
    yield Path(box.corners, pen, LAYER, closed=True)


def revision_rows(box: Box) -> int:
    """How many revisions a table of this size has room for, below its captions."""
    return max(0, int(box.height / _row_height(box) + 1e-9) - 1)


def _is_stacked(box: Box) -> bool:
    return box.width < 2 * sum(width for _, width in COLUMNS)


def _row_height(box: Box) -> float:
    return 2 * ROW if _is_stacked(box) else ROW


def _lefts(box: Box, widths: Sequence[float]) -> Sequence[float]:
    """Where columns begin, and where the last ends. One without a width has what is left over; without such a
    one it is the last's."""
    rest = box.width - sum(widths)
    if 0.0 not in widths:
        widths = [*widths[:-1], widths[-1] + rest]
    return [box.x + at for at in accumulate((width or rest for width in widths), initial=0.0)]


def _row(words: Sequence[str], lefts: Sequence[float], top: float, colour: str) -> Iterator[Item]:
    for each, left, right in zip(words, lefts, lefts[1:], strict=False):
        if each:
            (line, *_), size = fit_lines(each, ROW_TEXT, (right - left - 2.4, ROW))
            yield Text((left + 1.2, top - ROW + 1.35), line, size, colour, layer=LAYER)


_WRITERS: dict[str, Callable[[Sheet, Part, Box], Iterator[Item]]] = {
    "line": _line,
    "rectangle": _rectangle,
    "text": _text,
    "field": _field,
    "image": _image,
    "revisions": _revisions,
}
