"""What schedules list: things of the building, notes of a sheet, symbols of a set."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Mapping, Sequence

from drafting.annotation.numbered_notes import in_order
from drafting.annotation.schedules import (
    Entry,
    Listed,
    Schedule,
    element_entry,
    opening_entries,
    room_entries,
    schedule_table,
)
from drafting.annotation.tables import Table
from server.annotations.known import Known
from server.annotations.models import Annotation


def table_of(schedule: Schedule, known: Known, notes: Iterable[str] = ()) -> Table:
    """What a schedule lists of the newest version of a project's building and of its lists.

    Args:
        notes: the ids of the numbered notes on its sheet.
    """
    return schedule_table(schedule, entries_of(schedule.of, known, notes))


def entries_of(of: Listed, known: Known, notes: Iterable[str] = ()) -> Sequence[Entry]:
    """All that may be listed of one kind."""
    makers: Mapping[Listed, Callable[[], Sequence[Entry]]] = {
        "rooms": lambda: room_entries(known.whole.rooms, known.whole.storeys, known.data.spaces),
        "doors": lambda: opening_entries(known.whole.openings, True, known.elements),
        "windows": lambda: opening_entries(known.whole.openings, False, known.elements),
        "elements": lambda: [element_entry(element) for element in known.data.elements],
        "notes": lambda: _notes(known, notes),
        "symbols": lambda: _symbols(known),
    }
    return makers[of]()


def _notes(known: Known, used: Iterable[str]) -> list[Entry]:
    found = [known.notes[key] for key in dict.fromkeys(used) if key in known.notes]
    return [Entry({"Number": note.number, "Text": note.text}) for note in in_order(found)]


def _symbols(known: Known) -> list[Entry]:
    """Each symbol that stands somewhere, with how often."""
    rows = Annotation.objects.filter(project=known.project, spec__kind="symbol")
    counts = Counter(rows.values_list("spec__symbol", flat=True))
    named = sorted((known.symbols[key][0], count) for key, count in counts.items() if key in known.symbols)
    return [Entry({"Name": name, "Number": name, "Count": count}) for name, count in named]
