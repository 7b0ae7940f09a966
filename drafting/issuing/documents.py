"""Printed documents about sheets: a heading, what they say at the top, and tables that go on from page to
page."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from itertools import accumulate

from drafting.render.display_list import DisplayList
from drafting.render.items import FlatItem, Path, Text
from drafting.render.page import Page
from drafting.sheets.paper import Paper
from drafting.styles.lettering import LEADING, broken_lines, text_width
from drafting.styles.pens import BLOCK_PEN, INK, RULE_PEN, Pen

#: Margins, left and right wide enough to be filed; where the heading's base line lies below the top; mm.
LEFT, RIGHT, TOP, BOTTOM = 20.0, 12.0, 14.0, 16.0
HEADING_SIZE, SECTION_SIZE, SIZE, CAPTION_SIZE = 5.0, 3.5, 2.5, 1.8
#: Clear space within a row, above and below its words, and beside them; between two parts; mm.
PAD, BESIDE, GAP = 1.5, 1.2, 7.0
CAPTION_COLOUR = "#5d646b"
LAYER = "Document"
#: Captions of columns that stand upright are broken at this length, mm.
UPRIGHT = 44.0


@dataclass(frozen=True)
class DocumentColumn:
    """A column: its caption, its width (mm; zero for what is left over), and whether its caption stands
    upright."""

    caption: str
    width: float = 0.0
    upright: bool = False


@dataclass(frozen=True)
class DocumentSection:
    """A table under a heading. A cell may have several lines, of which the first is the larger."""

    title: str
    columns: tuple[DocumentColumn, ...]
    rows: tuple[tuple[str, ...], ...]
    empty: str = ""


@dataclass(frozen=True)
class Document:
    """What is printed.

    Attributes:
        facts: caption and words of what stands at the top, in two columns.
        words: a sentence or more below them.
        foot: at the foot of every page.
    """

    title: str
    facts: tuple[tuple[str, str], ...]
    sections: tuple[DocumentSection, ...]
    words: str = ""
    foot: str = ""
    paper: Paper = field(default_factory=lambda: Paper.of("A4", "portrait"))


def document_pages(document: Document, number: str = "", date: str = "") -> list[Page]:
    """The pages of a document, as many as its tables need; nothing on them is cut short."""
    writer = _Writer(document)
    writer.write()
    count = len(writer.pages)
    pages = []
    for k, items in enumerate(writer.pages, 1):
        foot: list[FlatItem] = [
            *_line(document.paper, BOTTOM - 4.0),
            Text((LEFT, BOTTOM - 9.0), document.foot, CAPTION_SIZE, CAPTION_COLOUR, layer=LAYER),
            Text(
                (document.paper.width - RIGHT, BOTTOM - 9.0),
                f"Page {k} of {count}",
                CAPTION_SIZE,
                CAPTION_COLOUR,
                anchor="end",
                layer=LAYER,
            ),
        ]
        display = DisplayList(document.paper.width, document.paper.height, (*items, *foot))
        title = document.title if count == 1 else f"{document.title}, page {k}"
        pages.append(Page(number, title, document.paper.width, document.paper.height, display, date=date))
    return pages


def _line(paper: Paper, y: float) -> Iterator[Path]:
    yield Path(((LEFT, y), (paper.width - RIGHT, y)), RULE_PEN, LAYER)


class _Writer:
    """Fills pages from the top; `y` is how far down the present one is filled."""

    def __init__(self, document: Document) -> None:
        self.document = document
        self.pages: list[list[FlatItem]] = []
        self.width = document.paper.width - LEFT - RIGHT
        self.y = 0.0
        self._begin()

    def _begin(self) -> None:
        self.pages.append([])
        self.y = self.document.paper.height - TOP

    def _text(
        self, x: float, y: float, words: str, size: float = SIZE, colour: str = INK, *, bold: bool = False
    ) -> None:
        if words:
            self.pages[-1].append(Text((x, y), words, size, colour, bold=bold, layer=LAYER))

    def write(self) -> None:
        document = self.document
        self._text(LEFT, self.y - HEADING_SIZE, document.title, HEADING_SIZE, bold=True)
        self.y -= HEADING_SIZE + 4.0
        self.pages[-1].append(Path(((LEFT, self.y), (LEFT + self.width, self.y)), BLOCK_PEN, LAYER))
        self.y -= 4.0
        self._facts()
        for line in self._broken(document.words, self.width):
            self._text(LEFT, self.y - SIZE, line)
            self.y -= SIZE * LEADING
        for section in document.sections:
            self._section(section)

    def _facts(self) -> None:
        """Facts side by side, each caption over its words."""
        half = self.width / 2
        facts = [
            (caption, self._broken(words, half - 4.0)) for caption, words in self.document.facts if words
        ]
        for k in range(0, len(facts), 2):
            pair = facts[k : k + 2]
            for side, (caption, lines) in enumerate(pair):
                x = LEFT + side * half
                self._text(x, self.y - CAPTION_SIZE, caption, CAPTION_SIZE, CAPTION_COLOUR)
                for n, line in enumerate(lines):
                    self._text(x, self.y - CAPTION_SIZE - 1.6 - SIZE - n * SIZE * LEADING, line)
            deepest = max(len(lines) for _, lines in pair)
            self.y -= CAPTION_SIZE + 1.6 + deepest * SIZE * LEADING + 2.4

    def _broken(self, words: str, width: float) -> list[str]:
        return [line for part in words.split("\n") if part for line in broken_lines(part, SIZE, width)]

    def _section(self, section: DocumentSection) -> None:
        widths = _widths(section.columns, self.width)
        heading = self._heading_height(section)
        self.y -= GAP
        # A heading never stands alone at the foot of a page.
        if self.y - SECTION_SIZE - heading - 12.0 < BOTTOM:
            self._begin()
        self._text(LEFT, self.y - SECTION_SIZE, section.title, SECTION_SIZE, bold=True)
        self.y -= SECTION_SIZE + 2.5
        self._captions(section, widths, heading)
        if not section.rows:
            self._text(LEFT + BESIDE, self.y - PAD - SIZE, section.empty)
            self.y -= SIZE + 2 * PAD
        for row in section.rows:
            cells = [_cell(words, width - 2 * BESIDE) for words, width in zip(row, widths, strict=True)]
            height = max(sum(size * LEADING for _, size in cell) for cell in cells) - SIZE * (LEADING - 1)
            height = max(height, SIZE) + 2 * PAD
            if self.y - height < BOTTOM:
                self._begin()
                self._captions(section, widths, heading)
            self._row(cells, widths)
            self.y -= height
            self._rule(widths, RULE_PEN)

    def _heading_height(self, section: DocumentSection) -> float:
        upright = (line for column in section.columns if column.upright for line in _upright(column))
        return max([CAPTION_SIZE, *(text_width(line, SIZE) for line in upright)]) + 2 * PAD

    def _captions(self, section: DocumentSection, widths: Sequence[float], height: float) -> None:
        low = self.y - height + PAD
        for x, column in zip(_lefts(widths), section.columns, strict=False):
            if column.upright:
                for k, line in enumerate(_upright(column)):
                    at = x + BESIDE + SIZE + k * SIZE * LEADING, low
                    self.pages[-1].append(Text(at, line, SIZE, INK, turn=90.0, layer=LAYER))
            else:
                self._text(x + BESIDE, low, column.caption, CAPTION_SIZE, CAPTION_COLOUR)
        self.y -= height
        self._rule(widths, BLOCK_PEN)

    def _rule(self, widths: Sequence[float], pen: Pen) -> None:
        self.pages[-1].append(Path(((LEFT, self.y), (LEFT + sum(widths), self.y)), pen, LAYER))

    def _row(self, cells: Sequence[Sequence[tuple[str, float]]], widths: Sequence[float]) -> None:
        for x, cell in zip(_lefts(widths), cells, strict=False):
            y = self.y - PAD
            for words, size in cell:
                self._text(x + BESIDE, y - size, words, size)
                y -= size * LEADING


def _upright(column: DocumentColumn) -> list[str]:
    return broken_lines(column.caption, SIZE, UPRIGHT)


def _lefts(widths: Sequence[float]) -> list[float]:
    return [LEFT + offset for offset in accumulate(widths, initial=0.0)]


def _widths(columns: Sequence[DocumentColumn], room: float) -> list[float]:
    """How wide columns are; those without a width share what is left over."""
    given = sum(column.width for column in columns)
    free = sum(not column.width for column in columns) or 1
    return [column.width or max(20.0, (room - given) / free) for column in columns]


def _cell(words: str, width: float) -> list[tuple[str, float]]:
    """The lines of a cell, with the height of each: the first paragraph is the larger."""
    lines: list[tuple[str, float]] = []
    for k, part in enumerate(words.split("\n")):
        size: float = SIZE if k == 0 else CAPTION_SIZE
        lines += [(line, size) for line in broken_lines(part, size, width)]
    return lines
