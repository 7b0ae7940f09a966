"""What a building says of its elements in words and figures: for schedules and tags."""

from __future__ import annotations

import gzip
import json
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict, dataclass, field
from pathlib import Path
from typing import Any

import numpy as np
import shapely

from drafting.building.model import Building
from drafting.building.openings import DOOR_CLASSES, WINDOW_CLASSES, plan_size
from drafting.building.rooms import Room

Value = str | float | int
#: A line of a picture, mm.
Outline = tuple[tuple[float, float], ...]
#: No element has more values than this: the rest of a file's sets is left out.
MAX_VALUES = 300
#: A room's outline is looked for this far about a door or a window, mm: it ends at the face of the wall.
_BESIDE = 700.0


@dataclass(frozen=True)
class ElementData:
    """What is known of an element.

    Attributes:
        room: numbers or names of the rooms that it stands in, or between; blank for none.
        size: its length along its longer side in plan, its width across, and its height; mm.
        values: attributes by their words, properties and quantities as “Set.Name”; lengths, areas and volumes
            in mm.
        picture: of a door or a window, its lines as it is seen from before it, mm from its lower left corner.
        heights: of its lowest and its highest point above the building's zero, mm.
    """

    id: str
    name: str
    element_class: str
    storey: str
    layer: str
    material: str
    room: str = ""
    size: tuple[float, float, float] = (0.0, 0.0, 0.0)
    values: Mapping[str, Value] = field(default_factory=dict)
    picture: tuple[Outline, ...] = ()
    heights: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class BuildingData:
    """The data of all elements, and the values of spaces by their ids."""

    elements: tuple[ElementData, ...] = ()
    spaces: Mapping[str, Mapping[str, Value]] = field(default_factory=dict)


def building_data(building: Building) -> BuildingData:
    """What is known of the elements and spaces of a building, by its storeys, classes and names."""
    found = []
    order = np.argsort(building.triangle_element, kind="stable")
    starts = np.searchsorted(building.triangle_element[order], np.arange(len(building.elements) + 1))
    rooms = _Rooms(building.rooms)
    for k, element in enumerate(building.elements):
        own = building.triangles[order[starts[k] : starts[k + 1]]]
        if not len(own):
            continue
        vertices = building.vertices[np.unique(own)]
        is_opening = element.ifc_class in DOOR_CLASSES + WINDOW_CLASSES
        low, high = vertices.min(axis=0), vertices.max(axis=0)
        found.append(
            ElementData(
                element.id,
                element.name,
                element.ifc_class,
                building.storeys[element.storey].name if element.storey >= 0 else "",
                element.layer,
                element.material,
                rooms.about((low + high) / 2, _BESIDE if is_opening else 0.0),
                plan_size(vertices),
                building.properties.get(element.id, {}),
                heights=(round(float(low[2]), 2), round(float(high[2]), 2)),
            )
        )
    ranks = {storey.name: k for k, storey in enumerate(building.storeys)}
    found.sort(key=lambda e: (ranks.get(e.storey, -1), e.element_class, e.name, e.id))
    spaces = {room.id: building.properties.get(room.id, {}) for room in building.rooms}
    return BuildingData(tuple(found), spaces)


class _Rooms:
    """Which room a point lies in."""

    def __init__(self, rooms: Sequence[Room]) -> None:
        self._rooms = [room for room in rooms if room.outline]
        self._tree = shapely.STRtree([room.shape for room in self._rooms])

    def about(self, at: np.ndarray, reach: float) -> str:
        """The numbers, or else the names, of the rooms at a point or within reach of it."""
        if not self._rooms:
            return ""
        near = self._tree.query(shapely.Point(at[:2]), "dwithin", reach)
        names = (
            room.number or room.name
            for room in (self._rooms[k] for k in sorted(near.tolist()))
            if room.floor - 1.0 <= at[2] <= room.floor + room.height
        )
        return " / ".join(dict.fromkeys(name for name in names if name))


def save_data(data: BuildingData, target: Path) -> None:
    """Write the data of a building."""
    rows = [asdict(element) for element in data.elements]
    whole = {"elements": rows, "spaces": {key: dict(values) for key, values in data.spaces.items()}}
    target.write_bytes(gzip.compress(json.dumps(whole, separators=(",", ":")).encode(), 6, mtime=0))


def load_data(stored: Path) -> BuildingData:
    """The data that `save_data` wrote."""
    whole = json.loads(gzip.decompress(stored.read_bytes()))
    return BuildingData(tuple(_elements(whole["elements"])), whole["spaces"])


def _elements(rows: Sequence[Mapping[str, Any]]) -> Iterator[ElementData]:
    for row in rows:
        (length, width, height), (low, high) = row["size"], row["heights"]
        picture = tuple(tuple((u, v) for u, v in line) for line in row["picture"])
        read = {"size": (length, width, height), "heights": (low, high), "picture": picture}
        yield ElementData(**{**row, **read})
