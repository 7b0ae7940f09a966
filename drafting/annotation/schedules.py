"""Schedules: tables of what there is in the building and in the project's lists, kept by themselves."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby
from typing import Annotated, ClassVar, Literal, Self, get_args

from pydantic import Field

from drafting.annotation.anchors import Anchor
from drafting.annotation.numbered_notes import number_order
from drafting.annotation.piece import BasePiece, Named
from drafting.annotation.tables import MAX_ROWS, Table
from drafting.building.element_data import ElementData, Outline, Value
from drafting.building.openings import Opening
from drafting.building.rooms import Room
from drafting.errors import SheetError
from drafting.schema import CLOSED, Flag, Number
from drafting.sheets.room_tags import area_text
from drafting.styles.lengths import feet_and_inches, plain_figure
from drafting.views.spec import AnyView

Listed = Literal["rooms", "doors", "windows", "elements", "notes", "symbols"]
LISTED: tuple[Listed, ...] = get_args(Listed)
TITLES: Mapping[Listed, str] = {
    "rooms": "Rooms", "doors": "Doors", "windows": "Windows", "elements": "Elements",
    "notes": "Notes", "symbols": "Symbols",
}  # fmt: skip
ALL_STOREYS = ""
MAX_COLUMNS, MAX_FILTERS = 20, 10
#: A room belongs to the highest storey that lies no more than this above its floor, mm.
_ABOVE = 100.0
#: How wide the words of a listed note stand, paper mm.
NOTE_WIDTH = 90.0

#: What a value measures, where it has a unit.
Unit = Literal["", "length", "area", "volume"]
#: Values of every element and their units; beside them stand the attributes and properties of the file.
SOURCES: Mapping[str, Unit] = {
    "Number": "", "Name": "", "Storey": "", "Class": "", "Layer": "", "Material": "", "Room": "",
    "Text": "", "Count": "", "Length": "length", "Width": "length", "Thickness": "length",
    "Height": "length", "Area": "area",
}  # fmt: skip
#: The columns of a schedule that names none.
DEFAULT_COLUMNS: Mapping[Listed, tuple[str, ...]] = {
    "rooms": ("Number", "Name", "Storey", "Area"),
    "doors": ("Number", "Storey", "Width", "Height"),
    "windows": ("Number", "Storey", "Width", "Height"),
    "elements": ("Class", "Name", "Storey", "Material"),
    "notes": ("Number", "Text"),
    "symbols": ("Name", "Count"),
}
Test = Literal["is", "is not", "contains", "over", "under", "given"]
Source = Annotated[str, Field(min_length=1, max_length=200)]


@dataclass(frozen=True)
class Column:
    """A column: where its cells come from, its caption (blank for that), whether it is summed up, and its
    width (paper mm, 0 for as wide as its words)."""

    __pydantic_config__ = CLOSED

    source: Source
    caption: Annotated[str, Field(max_length=60)] = ""
    total: Flag = False
    width: Annotated[Number, Field(ge=0, le=400)] = 0.0


@dataclass(frozen=True)
class Condition:
    """What a row is to have: a value that is, is not, or contains something, is over or under a figure, or is
    given at all."""

    __pydantic_config__ = CLOSED

    source: Source
    test: Test = "is"
    value: Annotated[str, Field(max_length=200)] = ""


@dataclass(frozen=True)
class Schedule(BasePiece):
    """A table of what there is of one kind, kept by itself.

    Attributes:
        at: its upper left corner, on the bare sheet.
        of: what it lists: things of the building, notes of the sheet it is on, or symbols of the set.
        classes: of elements, those classes alone; empty for all.
        storey: the name of the only storey that it lists; blank for all.
        title: its heading; blank for what it lists.
        feet: whether sizes are in feet and inches, and not in millimetres and square metres.
        columns: what stands in it; empty for what is usual.
        where: conditions that each row meets.
        group: by the values of this source rows stand together below a heading; blank for none.
        sort: the sources by which rows are in order; empty for what is usual.
        pictures: whether each row of doors and windows has a picture of it.
        counted: whether rows that would be alike are one, with their number.
        split: how many rows stand below each other before it goes on beside itself; 0 for all.
        first: the number of its first row, from 1, where the rows before stand in another schedule.
        most: how many rows stand here at most, where the rest stands in another; 0 for all.
        named: the id of a text style of the project that it is lettered in; blank for the usual.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "schedule"

    at: Anchor
    of: Listed = "rooms"
    classes: Annotated[tuple[Annotated[str, Field(max_length=80)], ...], Field(max_length=200)] = ()
    storey: Annotated[str, Field(max_length=200)] = ALL_STOREYS
    title: Annotated[str, Field(max_length=80)] = ""
    feet: Flag = False
    columns: Annotated[tuple[Column, ...], Field(max_length=MAX_COLUMNS)] = ()
    where: Annotated[tuple[Condition, ...], Field(max_length=MAX_FILTERS)] = ()
    group: Annotated[str, Field(max_length=200)] = ""
    sort: Annotated[tuple[Source, ...], Field(max_length=5)] = ()
    pictures: Flag = False
    counted: Flag = False
    split: Annotated[int, Field(ge=0, le=1_000)] = 0
    first: Annotated[int, Field(ge=1, le=100_000)] = 1
    most: Annotated[int, Field(ge=0, le=MAX_ROWS)] = 0
    named: Named = ""
    kind: Literal["schedule"] = "schedule"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0])

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        if view is not None:
            raise SheetError("A schedule stands on the sheet, and not in a drawing. Place it beside one.")


@dataclass(frozen=True)
class Entry:
    """Something that can be listed: its values by their sources, lengths and areas in mm; and its picture in
    lines, mm."""

    values: Mapping[str, Value]
    picture: tuple[Outline, ...] = ()


def room_entries(
    rooms: Iterable[Room],
    storeys: Sequence[tuple[str, float]],
    spaces: Mapping[str, Mapping[str, Value]] | None = None,
) -> list[Entry]:
    """Rooms in the order of their numbers.

    Args:
        storeys: name and elevation of each, mm, the lowest first.
        spaces: what the file says of them beside that, by their ids.
    """

    def storey_of(room: Room) -> str:
        below = [name for name, elevation in storeys if elevation <= room.floor + _ABOVE]
        return below[-1] if below else ""

    ordered = sorted(rooms, key=lambda room: (number_order(room.number), room.name, room.id))
    return [
        Entry(
            {
                **(spaces or {}).get(room.id, {}),
                "Number": room.number,
                "Name": room.name,
                "Storey": storey_of(room),
                "Area": room.area,
                "Height": room.height,
            }
        )
        for room in ordered
    ]


def opening_entries(
    openings: Iterable[Opening], doors: bool, data: Mapping[str, ElementData] | None = None
) -> list[Entry]:
    """Doors, or windows, in the order of their storeys and names.

    Args:
        data: what the file says of them beside that, by their ids.
    """
    found = []
    for opening in openings:
        if opening.is_door == doors:
            known = (data or {}).get(opening.id)
            found.append(
                Entry(
                    {
                        **(element_entry(known).values if known else {}),
                        "Number": opening.name,
                        "Name": opening.name,
                        "Storey": opening.storey,
                        "Width": opening.width,
                        "Height": opening.height,
                    },
                    known.picture if known else (),
                )
            )
    return found


def element_entry(element: ElementData) -> Entry:
    """An element as it is listed."""
    length, thickness, height = element.size
    return Entry(
        {
            **element.values,
            "Number": element.name,
            "Name": element.name,
            "Storey": element.storey,
            "Class": element.element_class.removeprefix("Ifc"),
            "Layer": element.layer,
            "Material": element.material,
            "Room": element.room,
            "Length": length,
            "Thickness": thickness,
            "Height": height,
        }
    )


def usual_columns(of: Listed) -> tuple[Column, ...]:
    """The columns of a schedule that names none.

    >>> [column.source for column in usual_columns("notes")]
    ['Number', 'Text']
    """
    return tuple(
        Column(source, total=source == "Area", width=NOTE_WIDTH if source == "Text" else 0.0)
        for source in DEFAULT_COLUMNS[of]
    )


def schedule_table(schedule: Schedule, entries: Sequence[Entry]) -> Table:
    """The table of a schedule, of what may be listed in it."""
    columns = schedule.columns or usual_columns(schedule.of)
    wanted = [entry for entry in entries if _is_wanted(schedule, entry)]
    if schedule.sort:
        wanted.sort(key=lambda e: tuple(_order(e.values.get(source)) for source in schedule.sort))
    if schedule.group:
        # Groups stand in the order in which they are first met, unless they are sorted by.
        rank = {key: k for k, key in enumerate(dict.fromkeys(_group(schedule, e) for e in wanted))}
        wanted.sort(key=lambda e: rank[_group(schedule, e)])
    rows: list[tuple[str, ...]] = []
    pictures: dict[int, tuple[Outline, ...]] = {}
    headings = set()
    for heading, members in groupby(wanted, key=lambda e: _group(schedule, e)):
        own = list(members)
        if schedule.group:
            headings.add(len(rows))
            rows.append((f"{heading or 'Not given'} ({len(own)})", *[""] * (len(columns) - 1)))
        for row, entry in _rows(schedule, columns, own):
            if schedule.pictures and entry.picture:
                pictures[len(rows)] = entry.picture
            rows.append(row)
    captions = [column.caption or column.source.rpartition(".")[2] for column in columns]
    figures = {k for k, column in enumerate(columns) if _is_figures(column.source, wanted)}
    widths = [column.width for column in columns]
    if schedule.counted and not any(column.source == "Count" for column in columns):
        captions.append("Count")
        figures.add(len(columns))
        widths.append(0.0)
    whole = len(rows)
    start = schedule.first - 1
    end = start + schedule.most if schedule.most else whole
    return Table(
        schedule.title or TITLES[schedule.of],
        tuple(captions),
        tuple(rows[start:end]),
        _total(schedule, columns, wanted, len(captions)) if end >= whole else (),
        frozenset(figures),
        frozenset(k - start for k in headings if start <= k < end),
        tuple(widths),
        split=schedule.split,
        pictures={k - start: lines for k, lines in pictures.items() if start <= k < end},
    )


def _group(schedule: Schedule, entry: Entry) -> str:
    if not schedule.group:
        return ""
    return cell_text(schedule.group, entry.values.get(schedule.group, ""), schedule.feet)


def _rows(
    schedule: Schedule, columns: Sequence[Column], entries: Sequence[Entry]
) -> list[tuple[tuple[str, ...], Entry]]:
    """The rows of some entries, each with the first that it is of."""
    rows = [
        (tuple(cell_text(c.source, entry.values.get(c.source, ""), schedule.feet) for c in columns), entry)
        for entry in entries
    ]
    if not schedule.counted:
        return rows
    counts: dict[tuple[str, ...], int] = {}
    first: dict[tuple[str, ...], Entry] = {}
    for row, entry in rows:
        counts[row] = counts.get(row, 0) + 1
        first.setdefault(row, entry)
    where = next((k for k, column in enumerate(columns) if column.source == "Count"), None)
    if where is None:
        return [((*row, str(count)), first[row]) for row, count in counts.items()]
    return [((*row[:where], str(count), *row[where + 1 :]), first[row]) for row, count in counts.items()]


def _total(
    schedule: Schedule, columns: Sequence[Column], entries: Sequence[Entry], wide: int
) -> tuple[str, ...]:
    if schedule.of == "notes":
        return ()
    total = [f"{len(entries)} in all", *[""] * (wide - 1)]
    for k, column in enumerate(columns):
        if column.total and k:
            values = [entry.values.get(column.source) for entry in entries]
            figures = [value for value in values if isinstance(value, int | float)]
            total[k] = cell_text(column.source, sum(figures), schedule.feet)
    return tuple(total)


def _is_wanted(schedule: Schedule, entry: Entry) -> bool:
    values = entry.values
    if schedule.storey != ALL_STOREYS and values.get("Storey") != schedule.storey:
        return False
    classes = {name.removeprefix("Ifc") for name in schedule.classes}
    if schedule.of == "elements" and classes and values.get("Class") not in classes:
        return False
    return all(meets(condition, values.get(condition.source), schedule.feet) for condition in schedule.where)


def meets(condition: Condition, value: Value | None, feet: bool = False) -> bool:
    """Whether a value meets a condition. Figures are compared in the unit in which they are written.

    >>> meets(Condition("Width", "over", "900"), 926.0), meets(Condition("Name", "contains", "oak"), "Oak")
    (True, True)
    """
    words = cell_text(condition.source, value if value is not None else "", feet)
    wanted = condition.value.strip()
    if condition.test == "given":
        return bool(words)
    if condition.test in ("over", "under"):
        have, limit = _figure(condition.source, value), _number(wanted)
        if have is None or limit is None:
            return False
        return have > limit if condition.test == "over" else have < limit
    if condition.test == "contains":
        return wanted.casefold() in words.casefold()
    same = words.casefold() == wanted.casefold() or (
        (have := _figure(condition.source, value)) is not None and have == _number(wanted)
    )
    return same if condition.test == "is" else not same


def _figure(source: str, value: Value | None) -> float | None:
    """A figure as it is compared: mm, m2 or m3."""
    if not isinstance(value, int | float):
        return None if value is None else _number(str(value))
    return value / {"area": 1e6, "volume": 1e9}.get(unit_of(source), 1.0)


def _number(words: str) -> float | None:
    try:
        return float(words.replace(",", "."))
    except ValueError:
        return None


def unit_of(source: str) -> Unit:
    """What the values of a source measure, as its name says (ISO 16739-1 names quantities by it).

    >>> unit_of("Area"), unit_of("Qto_WallBaseQuantities.NetVolume"), unit_of("Pset_WallCommon.FireRating")
    ('area', 'volume', '')
    """
    if source in SOURCES:
        return SOURCES[source]
    name = source.rpartition(".")[2]
    if not source.startswith(("Qto_", "BaseQuantities")):
        return ""
    for ending, unit in _ENDINGS.items():
        if name.endswith(ending):
            return unit
    return ""


_ENDINGS: Mapping[str, Unit] = {
    "Area": "area", "Volume": "volume", "Length": "length", "Width": "length", "Height": "length",
    "Depth": "length", "Perimeter": "length", "Thickness": "length",
}  # fmt: skip


def cell_text(source: str, value: Value, feet: bool) -> str:
    """A value as it stands in a cell."""
    if isinstance(value, str):
        return value
    unit = unit_of(source)
    if unit == "length":
        return feet_and_inches(max(value, 0.0), 8) if feet else plain_figure(value, 0)
    if unit == "area":
        return area_text(value, feet)
    if unit == "volume":
        return f"{plain_figure(value / 1e9, 2)} m³"
    return plain_figure(float(value), 3)


def _is_figures(source: str, entries: Sequence[Entry]) -> bool:
    values = [entry.values.get(source) for entry in entries if entry.values.get(source) not in (None, "")]
    return (
        source == "Count"
        or unit_of(source) != ""
        or (bool(values) and all(isinstance(value, int | float) for value in values))
    )


def _order(value: Value | None) -> tuple[int, float, list[tuple[int, int, str]]]:
    """By which values stand in order: figures first, then words, in which figures count as such."""
    if isinstance(value, int | float):
        return 0, float(value), []
    return 1, 0.0, number_order(value or "")
