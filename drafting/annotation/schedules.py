"""Schedules: tables of rooms, doors and windows that follow the building."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.building.openings import Opening
from drafting.building.rooms import Room
from drafting.schema import CLOSED, Flag
from drafting.sheets.room_tags import area_text
from drafting.styles.lengths import feet_and_inches, plain_figure

Listed = Literal["rooms", "doors", "windows"]
LISTED: tuple[Listed, ...] = get_args(Listed)
TITLES: dict[Listed, str] = {"rooms": "Rooms", "doors": "Doors", "windows": "Windows"}
ALL_STOREYS = ""
#: A room belongs to the highest storey that lies no more than this above its floor, mm.
_ABOVE = 100.0


@dataclass(frozen=True)
class Schedule:
    """A table of what there is of one kind in the building, kept by itself.

    Attributes:
        at: its upper left corner, on the bare sheet.
        of: what it lists.
        storey: the name of the only storey that it lists; blank for all.
        title: its heading; blank for what it lists.
        feet: whether sizes are in feet and inches, and not in millimetres and square metres.
    """

    __pydantic_config__ = CLOSED

    at: Anchor
    of: Listed = "rooms"
    storey: Annotated[str, Field(max_length=200)] = ALL_STOREYS
    title: Annotated[str, Field(max_length=80)] = ""
    feet: Flag = False
    kind: Literal["schedule"] = "schedule"


@dataclass(frozen=True)
class Table:
    """A table ready to be drawn: its heading, the captions of its columns, its rows, and what stands below
    them; figures are aligned on the right."""

    title: str
    captions: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    total: tuple[str, ...] = ()
    figures: frozenset[int] = frozenset()


def schedule_table(
    schedule: Schedule,
    rooms: Sequence[Room],
    openings: Sequence[Opening],
    storeys: Sequence[tuple[str, float]],
) -> Table:
    """The table of a schedule.

    Args:
        storeys: name and elevation of each, mm, the lowest first.
    """
    title = schedule.title or TITLES[schedule.of]
    if schedule.of == "rooms":
        return _of_rooms(schedule, title, rooms, storeys)
    wanted = [
        opening
        for opening in openings
        if opening.is_door == (schedule.of == "doors") and schedule.storey in (ALL_STOREYS, opening.storey)
    ]
    rows = (
        (o.name, o.storey, _length(o.width, schedule.feet), _length(o.height, schedule.feet)) for o in wanted
    )
    captions = ("Number", "Storey", "Width", "Height")
    return Table(title, captions, tuple(rows), (f"{len(wanted)} in all", "", "", ""), frozenset((2, 3)))


def _of_rooms(
    schedule: Schedule, title: str, rooms: Sequence[Room], storeys: Sequence[tuple[str, float]]
) -> Table:
    def storey_of(room: Room) -> str:
        below = [name for name, elevation in storeys if elevation <= room.floor + _ABOVE]
        return below[-1] if below else ""

    wanted = [room for room in rooms if schedule.storey in (ALL_STOREYS, storey_of(room))]
    wanted.sort(key=lambda room: (room.number, room.name, room.id))
    rows = ((r.number, r.name, storey_of(r), area_text(r.area, schedule.feet)) for r in wanted)
    total = f"{len(wanted)} in all", "", "", area_text(sum(r.area for r in wanted), schedule.feet)
    return Table(title, ("Number", "Name", "Storey", "Area"), tuple(rows), total, frozenset((3,)))


def _length(length: float, feet: bool) -> str:
    return feet_and_inches(length, 8) if feet else plain_figure(length, 0)
