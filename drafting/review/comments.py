"""What is said of a sheet, as it travels between people: a comment, its marks, and its answers."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from drafting.review.marks import AnyMark

#: How comments stand, and what they are called.
STATES = {"open": "Open", "answered": "Answered", "done": "Done", "declined": "Declined"}
NO_NAME = "Not named"
#: A comment and a name are no longer; letters.
MAX_TEXT, MAX_NAME = 4_000, 80


@dataclass(frozen=True)
class WrittenAnswer:
    """An answer: by what it is known, who gave it, when (ISO 8601; blank for not known), and its words."""

    key: str
    author: str
    made: str
    text: str


@dataclass(frozen=True)
class WrittenComment:
    """A comment.

    Attributes:
        key: by what it is known.
        number: counted on within the project; 0 for one that is new.
        made: when; ISO 8601, blank for not known.
        state: one of STATES.
    """

    key: str
    author: str
    made: str
    text: str
    marks: tuple[AnyMark, ...] = ()
    answers: Sequence[WrittenAnswer] = field(default_factory=tuple)
    number: int = 0
    state: str = "open"
    done_in: str = ""
    assigned: str = ""
    due: str = ""

    @property
    def standing(self) -> str:
        """How it stands, in words."""
        return f"{STATES[self.state]} in {self.done_in}" if self.done_in else STATES[self.state]


@dataclass(frozen=True)
class ReadSheet:
    """What is said of one of the sheets that were given, by its number among them."""

    sheet: int
    comments: tuple[WrittenComment, ...]


@dataclass(frozen=True)
class ReadFile:
    """What a file says, and sentences about what was left out of it."""

    sheets: tuple[ReadSheet, ...]
    notes: tuple[str, ...] = field(default_factory=tuple)


@dataclass(frozen=True)
class ReadTopic:
    """A topic as a comment, and the ids of the elements that it is about, the first foremost."""

    comment: WrittenComment
    elements: tuple[str, ...] = ()
