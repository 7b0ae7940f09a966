"""Tables as they are drawn: a heading, captions, rows of one line or several; each column as wide as its
words need or as it is told; going on beside themselves where they are split."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import accumulate

from drafting.annotation.tables import Merged, Picture, Table
from drafting.geometry.boxes import Box, Point
from drafting.render.items import Anchor, Fill, FlatItem, Path, Text
from drafting.styles.lettering import LEADING, broken_lines, text_width
from drafting.styles.pens import BLOCK_PEN, PAPER, RULE_PEN, Pen

LAYER = "Schedules"
#: Heights of the heading and of a row, of their lettering, and of captions, where cells are lettered at
#: SIZE; at another size they go by that. Clear space beside words. Paper mm.
HEADING, ROW = 8.0, 5.5
HEADING_SIZE, CAPTION_SIZE, SIZE, PADDING = 3.5, 1.8, 2.5, 1.8
#: Where the base line of words lies in a row, as a share of its height from below.
BASE = 1.5 / 5.5
#: No column is narrower, mm; and how far apart the parts of a split table stand.
MIN_COLUMN, BETWEEN = 14.0, 4.0
#: Pictures are drawn at 1 to this.
PICTURE_SCALE, PICTURE_PEN = 100.0, Pen(0.13)


@dataclass(frozen=True)
class _Row:
    """A row: its cells by lines, their height of lettering, whether they are bold, and its height with one
    line in it."""

    cells: tuple[tuple[str, ...], ...]
    size: float
    high: float
    bold: bool = False
    number: int = -1
    picture: Picture = ()

    @property
    def height(self) -> float:
        if self.picture:
            return _size(self.picture)[1] / PICTURE_SCALE + 2 * PADDING
        return self.high + (max(map(len, self.cells), default=1) - 1) * self.size * LEADING


def table_items(table: Table, corner: Point, source: str = "") -> Iterator[FlatItem]:
    """A table whose upper left corner lies at `corner`."""
    if table.pictures:
        table = _with_room(table)
    widths = _widths(table)
    share = table.size / SIZE
    high = ROW * share
    captions = tuple((caption,) for caption in table.captions)
    head = [_Row(captions, CAPTION_SIZE * share, high)] if table.captions else []
    rows = [_row(table, widths, row, number) for number, row in enumerate(table.rows)]
    if table.total:
        rows.append(_Row(tuple((cell,) for cell in table.total), table.size, high, table.bold))
    per = table.split or max(len(rows), 1)
    parts = [rows[k : k + per] for k in range(0, max(len(rows), 1), per)]
    wide = sum(widths)
    x, top = corner
    titled = HEADING * share if table.title else 0.0
    for k, part in enumerate(parts):
        left = x + k * (wide + BETWEEN)
        yield from _part(table, [*head, *part], widths, (left, top), titled, source, first=k == 0)
    if table.borders != "none":
        # A box about all, which is taken hold of.
        high = titled + max(sum(row.height for row in [*head, *part]) for part in parts)
        whole = Box(x, top - high, len(parts) * (wide + BETWEEN) - BETWEEN, high)
        if len(parts) == 1:
            yield Path(whole.corners, BLOCK_PEN, LAYER, source, closed=True)


def _with_room(table: Table) -> Table:
    """A table with a column for its pictures before the others, as wide as the widest of them."""
    wide = max(_size(picture)[0] for picture in table.pictures.values()) / PICTURE_SCALE + 2 * PADDING
    widths = table.widths or (0.0,) * len(table.captions)
    return replace(
        table,
        captions=("", *table.captions),
        rows=tuple(
            (row[0], "", *row[1:]) if number in table.groups else ("", *row)
            for number, row in enumerate(table.rows)
        ),
        total=(table.total[0], "", *table.total[1:]) if table.total else (),
        figures=frozenset(k + 1 for k in table.figures),
        widths=(wide, *widths),
    )


def _size(picture: Picture) -> Point:
    points = [point for line in picture for point in line]
    return max(u for u, _ in points), max(v for _, v in points)


def _widths(table: Table) -> list[float]:
    count = len(table.captions) or len(table.rows[0])
    told = [table.widths[k] if k < len(table.widths) else 0.0 for k in range(count)]
    spanned = {
        (one.row + r, one.column + c)
        for one in table.merged
        for r in range(one.rows)
        for c in range(one.columns)
        if one.columns > 1
    }
    share, bold = table.size / SIZE, table.bold
    widths = [
        told[k]
        or max(
            MIN_COLUMN,
            text_width(table.captions[k], CAPTION_SIZE * share) + 2 * PADDING if table.captions else 0.0,
            *(
                text_width(row[k], table.size, bold) + 2 * PADDING
                for number, row in enumerate(table.rows)
                if number not in table.groups and (number, k) not in spanned
            ),
            # What stands below the rows may run on where the columns beside it are blank.
            text_width(table.total[k], table.size, bold) + 2 * PADDING if table.total and k else 0.0,
        )
        for k in range(count)
    ]
    headings = [(table.title, HEADING_SIZE * share, True)] if table.title else []
    headings += [(table.rows[number][0], table.size, True) for number in table.groups]
    headings += [(table.total[0], table.size, bold)] if table.total and count == 1 else []
    needed = max((text_width(*heading) + 2 * PADDING for heading in headings), default=0.0)
    widths[-1] += max(0.0, needed - sum(widths))
    return widths


def _row(table: Table, widths: Sequence[float], row: Sequence[str], number: int) -> _Row:
    high = ROW * table.size / SIZE
    if number in table.groups:
        return _Row(tuple((cell,) for cell in row), table.size, high, bold=True, number=number)
    cells = []
    for k, cell in enumerate(row):
        told = k < len(table.widths) and table.widths[k] > 0
        lines = broken_lines(cell, table.size, widths[k] - 2 * PADDING, table.bold) if told else [cell]
        cells.append(tuple(lines) or ("",))
    picture = table.pictures.get(number, ())
    return _Row(tuple(cells), table.size, high, table.bold, number, picture)


def _part(
    table: Table,
    rows: Sequence[_Row],
    widths: Sequence[float],
    corner: Point,
    titled: float,
    source: str,
    *,
    first: bool,
) -> Iterator[FlatItem]:
    x, top = corner
    wide = sum(widths)
    height = titled + sum(row.height for row in rows)
    box = Box(x, top - height, wide, height)
    yield Fill((box.corners,), PAPER, LAYER, source)
    if table.title and first:
        share = table.size / SIZE
        at, size = (x + PADDING, top - titled + 2.5 * share), HEADING_SIZE * share
        yield Text(at, table.title, size, table.colour, bold=True, layer=LAYER, viewport=source)
    lefts = [x + offset for offset in accumulate(widths, initial=0.0)]
    tops = [top - titled - below for below in accumulate((row.height for row in rows), initial=0.0)]
    hidden = {cell: one for one in table.merged for cell in _cells(one)}
    for k, row in enumerate(rows):
        for column, lines in enumerate(row.cells):
            one = hidden.get((row.number, column))
            if one is not None and (row.number, column) != (one.row, one.column):
                continue
            right = lefts[min(column + (one.columns if one else 1), len(widths))]
            yield from _cell(table, row, column, lines, (lefts[column], right, tops[k]), source)
        for line in row.picture:
            at = lefts[0] + PADDING, tops[k] - row.height + PADDING
            points = tuple((at[0] + u / PICTURE_SCALE, at[1] + v / PICTURE_SCALE) for u, v in line)
            yield Path(points, PICTURE_PEN, LAYER, source)
    yield from _rules(table, rows, lefts, tops, hidden, source)
    if table.split and table.borders != "none":
        yield Path(Box(x, box.y, wide, height - titled).corners, BLOCK_PEN, LAYER, source, closed=True)


def _cell(
    table: Table,
    row: _Row,
    column: int,
    lines: Sequence[str],
    room: tuple[float, float, float],
    source: str,
) -> Iterator[Text]:
    left, right, top = room
    aligned_right = column in table.figures and row.number not in table.groups
    anchor: Anchor = "end" if aligned_right else "start"
    at = right - PADDING if aligned_right else left + PADDING
    for number, words in enumerate(lines):
        if words:
            y = top - row.high * (1 - BASE) - number * row.size * LEADING
            yield Text((at, y), words, row.size, table.colour, anchor, row.bold, layer=LAYER, viewport=source)


def _rules(
    table: Table,
    rows: Sequence[_Row],
    lefts: Sequence[float],
    tops: Sequence[float],
    hidden: dict[tuple[int, int], Merged],
    source: str,
) -> Iterator[Path]:
    """Lines between rows and between columns, but not through what is one."""
    if table.borders == "none":
        return
    count = len(lefts) - 1

    def one_at(k: int, column: int) -> Merged | None:
        return hidden.get((rows[k].number, column)) if 0 <= k < len(rows) else None

    for k in range(len(rows)):
        run = lefts[0]
        for column in range(count + 1):
            joined = (
                column < count
                and one_at(k, column) is not None
                and one_at(k, column) is one_at(k - 1, column)
            )
            if joined or column == count:
                end = lefts[column]
                if end > run:
                    yield Path(((run, tops[k]), (end, tops[k])), RULE_PEN, LAYER, source)
                run = lefts[min(column + 1, count)]
    if table.borders != "all":
        return
    for column in range(1, count):
        run = tops[0]
        for k in range(len(rows) + 1):
            whole = k < len(rows) and _runs_on(table, rows[k], column)
            joined = k < len(rows) and (
                whole or (one_at(k, column) is not None and one_at(k, column) is one_at(k, column - 1))
            )
            if joined or k == len(rows):
                if run > tops[k]:
                    yield Path(((lefts[column], tops[k]), (lefts[column], run)), RULE_PEN, LAYER, source)
                run = tops[min(k + 1, len(rows))]


def _runs_on(table: Table, row: _Row, column: int) -> bool:
    """Whether a row is a heading or the total, over whose columns no line runs."""
    return row.number in table.groups or (
        row.number < 0 and bool(table.total) and tuple(cells[0] for cells in row.cells) == table.total
    )


def _cells(one: Merged) -> Iterator[tuple[int, int]]:
    for r in range(one.rows):
        for c in range(one.columns):
            yield one.row + r, one.column + c
