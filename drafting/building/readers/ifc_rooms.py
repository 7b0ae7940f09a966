"""Rooms of an IFC file (IfcSpace)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import ifcopenshell.util.element
import ifcopenshell.util.unit
import numpy as np
import shapely

from drafting.building.doors import Door
from drafting.building.model import Building, Floats
from drafting.building.readers.ifc_shapes import body_of, has_body
from drafting.building.rooms import CLEAR, Room, footprint, roomiest, swept_by

MM_PER_METRE = 1000.0
#: Faces whose normal has less than this upward are the floor of a space.
DOWNWARD = -0.99
#: What begins no higher than this over a floor stands on it; what ends lower is no hindrance. mm.
REACH, FLAT = 1200.0, 30.0
#: Quantities that give the area of a floor (Qto_SpaceBaseQuantities).
AREAS = ("NetFloorArea", "GrossFloorArea")


def read_rooms(file: Any, building: Building) -> tuple[tuple[Room, ...], tuple[str, ...]]:
    """The rooms of a file, and sentences about those that have no outline.

    `building` is what is built of it: names stand clear of it.
    """
    found, silent = [], []
    obstacles = _Obstacles(building)
    square = ifcopenshell.util.unit.calculate_unit_scale(file, "AREAUNIT")
    for space in file.by_type("IfcSpace"):
        shape = body_of(space) if has_body(space) else None
        outline, low, high = _outline(shape) if shape is not None else (None, 0.0, 0.0)
        if outline is None or outline.is_empty:
            silent.append(space.LongName or space.Name or space.GlobalId)
            continue
        place, width = roomiest(outline, obstacles.on(low, outline))
        found.append(
            Room(
                space.GlobalId,
                space.Name or "",
                space.LongName or "",
                low,
                high - low,
                float(outline.area),
                _quantity(space, square),
                place,
                width,
            )
        )
    return tuple(sorted(found, key=lambda room: room.id)), _about(silent)


def _outline(shape: Any) -> tuple[shapely.Geometry, float, float]:
    """The outline of a space's floor, and the height of its floor and of its top; mm."""
    matrix = np.array(shape.transformation.matrix, np.float64).reshape(4, 4).T
    points = np.asarray(shape.geometry.verts, np.float64).reshape(-1, 3) @ matrix[:3, :3].T + matrix[:3, 3]
    corners = points[np.asarray(shape.geometry.faces, np.int64).reshape(-1, 3)] * MM_PER_METRE
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    length = np.maximum(np.linalg.norm(normal, axis=1), 1e-9)
    floor = corners[normal[:, 2] / length < DOWNWARD]
    outline = footprint(floor if len(floor) else corners)
    return outline, float(corners[:, :, 2].min()), float(corners[:, :, 2].max())


def _quantity(space: Any, square: float) -> float | None:
    """The floor area that a file gives, in m2."""
    sets: dict[str, dict[str, Any]] = ifcopenshell.util.element.get_psets(space, qtos_only=True)
    for name in AREAS:
        for quantities in sets.values():
            if isinstance(quantities.get(name), int | float):
                return float(quantities[name]) * square
    return None


def _about(names: Sequence[str]) -> tuple[str, ...]:
    if not names:
        return ()
    more = f" and {len(names) - 1} more" if len(names) > 1 else ""
    verb = "have" if more else "has"
    return (f"The room “{names[0]}”{more} {verb} no outline in the file, and so no name in plans.",)


class _Obstacles:
    """What stands on floors: boxes of elements, and the ways of doors."""

    def __init__(self, building: Building) -> None:
        corners: Floats = building.vertices[building.triangles].reshape(-1, 3)
        owner = np.repeat(building.triangle_element, 3)
        order = np.argsort(owner, kind="stable")
        starts = np.searchsorted(owner[order], np.arange(len(building.elements)))
        self._low = np.minimum.reduceat(corners[order], starts)
        self._high = np.maximum.reduceat(corners[order], starts)
        (x0, y0), (x1, y1) = (self._low[:, :2] - CLEAR).T, (self._high[:, :2] + CLEAR).T
        self._boxes = shapely.box(x0, y0, x1, y1)
        self._doors: list[Door] = list(building.doors.values())

    def on(self, floor: float, outline: shapely.Geometry) -> list[shapely.Geometry]:
        """What stands on a floor within an outline; not what is as large as the room, such as its slab."""
        near = (self._low[:, 2] < floor + REACH) & (self._high[:, 2] > floor + FLAT)
        inside = near & shapely.contains(outline.buffer(2 * CLEAR), self._boxes)
        ways = [swept_by(door) for door in self._doors if abs(door.corner[2] - floor) < REACH]
        return [*self._boxes[inside & (shapely.area(self._boxes) < outline.area / 2)], *ways]
