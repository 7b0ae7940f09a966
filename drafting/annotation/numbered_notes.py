"""Numbered notes: notes of a project's list, shown on drawings as their numbers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.notes import MAX_ARMS, LeaderEnd, Offset
from drafting.annotation.piece import BasePiece
from drafting.schema import CLOSED

MAX_NUMBER, MAX_TEXT = 12, 1_000
Mark = Literal["circle", "hexagon", "box"]


@dataclass(frozen=True)
class ListedNote:
    """A note of a project's list."""

    number: str
    text: str


@dataclass(frozen=True)
class NumberedNote(BasePiece):
    """A note of the project's list, shown as its number in a mark.

    Attributes:
        at: what it speaks of, and where its first leader points.
        note: the id of the note in the list.
        offset: from there to the middle of the mark, paper mm.
        mark: the outline about the number.
        leader: how its leaders end; “none” for a mark without.
        arms: what further leaders point at.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "numbered note"

    at: Anchor
    note: Annotated[str, Field(min_length=1, max_length=40)]
    offset: tuple[Offset, Offset] = (0.0, 0.0)
    mark: Mark = "circle"
    leader: LeaderEnd = "arrow"
    arms: Annotated[tuple[Anchor, ...], Field(max_length=MAX_ARMS)] = ()
    kind: Literal["numbered"] = "numbered"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at, *self.arms)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0], arms=tuple(anchors[1:]))


def in_order(notes: Sequence[ListedNote]) -> list[ListedNote]:
    """Notes by their numbers: figures within them count as figures.

    >>> [note.number for note in in_order([ListedNote("10", ""), ListedNote("A2", ""), ListedNote("9", "")])]
    ['9', '10', 'A2']
    """
    return sorted(notes, key=lambda note: number_order(note.number))


def number_order(number: str) -> list[tuple[int, int, str]]:
    """The key by which numbers stand in order."""
    parts: list[tuple[int, int, str]] = []
    rest = number
    while rest:
        digits = len(rest) - len(rest.lstrip("0123456789"))
        if digits:
            parts.append((0, int(rest[:digits]), ""))
            rest = rest[digits:]
        else:
            parts.append((1, 0, rest[0].casefold()))
            rest = rest[1:]
    return parts
