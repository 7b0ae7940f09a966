"""Tables: rows of cells as schedules have them, and free ones whose cells are typed or come from a file."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.piece import BasePiece, Named
from drafting.errors import SheetError
from drafting.schema import CLOSED, Flag, Number
from drafting.styles.lengths import plain_figure
from drafting.styles.pens import INK
from drafting.views.spec import AnyView

MAX_ROWS, MAX_COLUMNS, MAX_CELL = 600, 40, 500
#: In a cell of a free table: the sum of the figures above it, up to one that is none.
SUM = "=sum"
_FIGURE = re.compile(r"^[-−]?\d[\d   ,]*(?:\.\d+)?$")

#: Lines of a picture, mm.
Picture = tuple[tuple[tuple[float, float], ...], ...]
Borders = Literal["all", "rows", "none"]
Cell = Annotated[str, Field(max_length=MAX_CELL)]


@dataclass(frozen=True)
class Merged:
    """Cells that are one: the row and the column of the first, and how many each way."""

    __pydantic_config__ = CLOSED

    row: Annotated[int, Field(ge=0, lt=MAX_ROWS)]
    column: Annotated[int, Field(ge=0, lt=MAX_COLUMNS)]
    rows: Annotated[int, Field(ge=1, le=MAX_ROWS)] = 1
    columns: Annotated[int, Field(ge=1, le=MAX_COLUMNS)] = 1


@dataclass(frozen=True)
class Table:
    """What stands in a table.

    Attributes:
        title: its heading; blank for none.
        captions: of its columns; none for a table without.
        rows: its cells.
        total: what stands below them; empty for nothing.
        figures: the numbers of the columns whose cells are figures, which stand to the right.
        groups: the numbers of rows that are headings of those below them.
        widths: the widths of its columns, paper mm; 0 for as wide as the words are. Words that are longer
            than a width are broken into lines.
        merged: cells that are one.
        borders: whether all cells, only rows, or nothing is ruled.
        split: how many rows stand below each other before the table goes on beside itself; 0 for all.
        size, bold, colour: how its cells are lettered; headings and captions go by them.
        pictures: of rows by their numbers: lines in mm, drawn small in a column before the others.
    """

    title: str
    captions: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    total: tuple[str, ...] = ()
    figures: frozenset[int] = frozenset()
    groups: frozenset[int] = frozenset()
    widths: tuple[float, ...] = ()
    merged: tuple[Merged, ...] = ()
    borders: Borders = "all"
    split: int = 0
    size: float = 2.5
    bold: bool = False
    colour: str = INK
    pictures: Mapping[int, Picture] = field(default_factory=dict)


@dataclass(frozen=True)
class FreeTable(BasePiece):
    """A table whose cells are typed, or come from a file.

    Attributes:
        at: its upper left corner, on the bare sheet.
        cells: row by row, each as long as the first; one that says “=sum” gives the sum of those above it.
        title: its heading; blank for none.
        header: whether the first row holds the captions of the columns.
        widths: of its columns, paper mm; 0 for as wide as the words are.
        merged: cells that are one.
        borders: whether all cells, only rows, or nothing is ruled.
        split: how many rows stand below each other before it goes on beside itself; 0 for all.
        named: the id of a text style of the project that it is lettered in; blank for the usual.
        file: the id of the file that its cells come from; blank for one that is typed.
        file_hash: what that file was when they were taken.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "table"

    at: Anchor
    cells: Annotated[
        tuple[Annotated[tuple[Cell, ...], Field(min_length=1, max_length=MAX_COLUMNS)], ...],
        Field(min_length=1, max_length=MAX_ROWS),
    ]
    title: Annotated[str, Field(max_length=80)] = ""
    header: Flag = True
    widths: Annotated[tuple[Annotated[Number, Field(ge=0, le=400)], ...], Field(max_length=MAX_COLUMNS)] = ()
    merged: Annotated[tuple[Merged, ...], Field(max_length=200)] = ()
    borders: Borders = "all"
    split: Annotated[int, Field(ge=0, le=MAX_ROWS)] = 0
    named: Named = ""
    file: Annotated[str, Field(max_length=40)] = ""
    file_hash: Annotated[str, Field(max_length=64)] = ""
    kind: Literal["table"] = "table"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0])

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        if view is not None:
            raise SheetError("A table stands on the sheet, and not in a drawing. Place it beside one.")
        wide = len(self.cells[0])
        if any(len(row) != wide for row in self.cells):
            raise SheetError("The rows of this table are not equally long. Give each as many cells.")
        taken: set[tuple[int, int]] = set()
        for one in self.merged:
            own = {(one.row + r, one.column + c) for r in range(one.rows) for c in range(one.columns)}
            if own & taken or one.row + one.rows > len(self.cells) or one.column + one.columns > wide:
                raise SheetError("Merged cells lie over each other, or beyond the table. Divide them first.")
            taken |= own


def figure_of(cell: str) -> float | None:
    """The figure that a cell holds; None for words.

    >>> figure_of("1 250.5"), figure_of("−3"), figure_of("D1")
    (1250.5, -3.0, None)
    """
    if not _FIGURE.match(cell.strip()):
        return None
    return float(re.sub(r"[   ,]", "", cell.strip()).replace("−", "-"))


def sum_of(cells: Sequence[str]) -> str:
    """The sum of figures, with as many decimals as the longest of them has.

    >>> sum_of(["1.50", "2", "0.25"])
    '3.75'
    """
    figures = [figure for cell in cells if (figure := figure_of(cell)) is not None]
    decimals = max((len(cell.strip().partition(".")[2]) for cell in cells), default=0)
    return f"{sum(figures):.{decimals}f}" if decimals else plain_figure(sum(figures), 0)


def free_table(table: FreeTable) -> Table:
    """What stands in a free table: sums worked out, columns of figures to the right."""
    wide = len(table.cells[0])
    first = 1 if table.header and len(table.cells) > 1 else 0
    rows = [list(row) for row in table.cells[first:]]
    for column in range(wide):
        start = 0
        for k, row in enumerate(rows):
            if row[column].strip().casefold() == SUM:
                above = [rows[r][column] for r in range(start, k)]
                row[column] = sum_of([cell for cell in above if figure_of(cell) is not None])
                start = k + 1
    figures = frozenset(
        column
        for column in range(wide)
        if (filled := [row[column] for row in rows if row[column].strip()])
        and all(figure_of(cell) is not None for cell in filled)
    )
    merged = tuple(replace(one, row=one.row - first) for one in table.merged if one.row >= first)
    return Table(
        table.title,
        table.cells[0] if first else (),
        tuple(map(tuple, rows)),
        figures=figures,
        widths=table.widths,
        merged=merged,
        borders=table.borders,
        split=table.split,
    )
