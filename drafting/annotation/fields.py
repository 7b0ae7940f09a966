"""Fields in notes: words in braces that stand for what a sheet, an element or a room says of itself."""

from __future__ import annotations

import re
from collections.abc import Mapping

from drafting.annotation.schedules import Entry, cell_text

_FIELD = re.compile(r"\{([^{}\n]{1,200})\}")
#: What is written before a value of the room that a note lies in.
ROOM = "Room "


def has_fields(text: str) -> bool:
    """Whether something in a text may be a field."""
    return _FIELD.search(text) is not None


def filled_in(text: str, values: Mapping[str, str]) -> str:
    """A text with the values of its fields; what names no field stays as it is typed. Capitals do not count.

    >>> filled_in("Door {number}, see {detail}", {"Number": "D01"})
    'Door D01, see {detail}'
    """
    known = {name.casefold(): value for name, value in values.items()}
    return _FIELD.sub(lambda found: known.get(found[1].strip().casefold(), found[0]), text)


def element_fields(entry: Entry, feet: bool = False) -> dict[str, str]:
    """What can stand in a note of the element that it is attached to."""
    return {source: cell_text(source, value, feet) for source, value in entry.values.items()}


def room_fields(entry: Entry, feet: bool = False) -> dict[str, str]:
    """What can stand in a note of the room that it lies in."""
    return {ROOM + source.lower(): words for source, words in element_fields(entry, feet).items()}
