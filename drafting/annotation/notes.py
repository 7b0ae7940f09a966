"""Notes: words on a drawing or a sheet, with leaders to what they speak of (ISO 128-2: leader lines)."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.piece import BasePiece
from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point
from drafting.schema import CLOSED, Colour, Flag, Number
from drafting.styles.lettering import LEADING, broken_lines, text_width
from drafting.styles.pens import INK
from drafting.views.spec import AnyView

#: Heights of lettering on drawings, paper mm (ISO 3098), of which a note has one.
TEXT_HEIGHTS = (1.8, 2.5, 3.5, 5.0, 7.0)
MAX_LETTERS, MAX_ARMS, MAX_AWAY = 10_000, 12, 2000.0
MIN_NOTE_WIDTH, MAX_NOTE_WIDTH = 8.0, 400.0
#: How far a leader runs level before it turns to what it points at; between it and the words; paper mm.
LANDING, CLEAR = 3.0, 1.0
#: What begins a paragraph of a list, and how far its lines stand in, in heights of capitals.
BULLET, INDENT = "- ", 1.4

LeaderEnd = Literal["arrow", "dot", "plain", "none"]
Align = Literal["left", "middle", "right"]
Offset = Annotated[Number, Field(ge=-MAX_AWAY, le=MAX_AWAY)]


@dataclass(frozen=True)
class Note(BasePiece):
    """Words in a box of a width, which grows downward.

    Attributes:
        at: what it is attached to, and where its first leader points.
        text: its paragraphs, by lines; one that begins with “- ” is part of a list.
        offset: from there to the upper left corner of the words, paper mm.
        width: lines are broken at it, paper mm.
        size: height of capitals, paper mm.
        colour: of its words.
        named: the id of a style of the project, in place of its own height, weight and colour; blank for
            none.
        leader: how its leaders end; “none” for a note without.
        arms: what further leaders point at.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "note"

    at: Anchor
    text: Annotated[str, Field(min_length=1, max_length=MAX_LETTERS)]
    offset: tuple[Offset, Offset] = (0.0, 0.0)
    width: Annotated[Number, Field(ge=MIN_NOTE_WIDTH, le=MAX_NOTE_WIDTH)] = 50.0
    size: Annotated[Number, Field(ge=1.0, le=20.0)] = 2.5
    bold: Flag = False
    colour: Colour = INK
    named: Annotated[str, Field(max_length=40)] = ""
    align: Align = "left"
    leader: LeaderEnd = "none"
    arms: Annotated[tuple[Anchor, ...], Field(max_length=MAX_ARMS)] = ()
    kind: Literal["note"] = "note"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at, *self.arms)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0], arms=tuple(anchors[1:]))

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        if not self.text.strip():
            raise SheetError("A note has words. Type some, or delete it.")


@dataclass(frozen=True)
class NoteLine:
    """One line: the left end of its base line from the box's upper left corner, paper mm, and its words."""

    x: float
    y: float
    text: str


def note_lines(note: Note) -> list[NoteLine]:
    """The lines of a note, broken between words; a word that is longer than a line is broken too.

    >>> [line.text for line in note_lines(Note(Anchor((0, 0)), "Oak, oiled\\n- two coats", width=20))]
    ['Oak, oiled', '–', 'two coats']
    """
    found = []
    y = -note.size
    for paragraph in note.text.split("\n"):
        listed = paragraph.startswith(BULLET)
        indent = INDENT * note.size if listed else 0.0
        words = paragraph.removeprefix(BULLET) if listed else paragraph
        if listed:
            found.append(NoteLine(0.0, y, "–"))
        for line in broken_lines(words, note.size, note.width - indent, note.bold):
            spare = note.width - indent - text_width(line, note.size, note.bold)
            x = indent + {"left": 0.0, "middle": spare / 2, "right": spare}[note.align]
            if line:
                found.append(NoteLine(x, y, line))
            y -= note.size * LEADING
    return found


def note_box(note: Note, corner: Point) -> Box:
    """What the words cover, from the upper left corner of their box; paper mm."""
    lines = note_lines(note)
    left = min((line.x for line in lines), default=0.0)
    right = max((line.x + text_width(line.text, note.size, note.bold) for line in lines), default=note.width)
    # Letters such as g and p reach below the base line by about a third of a capital.
    low = min((line.y for line in lines), default=-note.size) - note.size / 3
    return Box(corner[0] + left, corner[1] + low, right - left, -low)


def leader_line(note: Note, corner: Point, tip: Point) -> tuple[Point, ...]:
    """A leader from the words to what it points at: level beside their first line, then straight.

    >>> leader_line(Note(Anchor((0, 0)), "Oak", leader="arrow"), (30, 20), (10, 10))
    ((10, 10), (26.0, 18.75), (29.0, 18.75))
    """
    box = note_box(note, corner)
    y = corner[1] - note.size / 2
    start, turn = (
        (box.x - CLEAR, box.x - CLEAR - LANDING)
        if tip[0] <= box.x + box.width / 2
        else (box.right + CLEAR, box.right + CLEAR + LANDING)
    )
    return tip, (turn, y), (start, y)
