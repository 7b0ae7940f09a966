"""Rooms of an IFC file (IfcSpace)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import ifcopenshell.util.element
import ifcopenshell.util.unit
import numpy as np
import shapely

from drafting.building.model import Floats
from drafting.building.readers.ifc_shapes import body_of, has_body
from drafting.building.rooms import Room

MM_PER_METRE = 1000.0
#: Faces whose normal has less than this upward are the floor of a space.
DOWNWARD = -0.99
#: Quantities that give the area of a floor (Qto_SpaceBaseQuantities).
AREAS = ("NetFloorArea", "GrossFloorArea")


def read_rooms(file: Any) -> tuple[tuple[Room, ...], tuple[str, ...]]:
    """The rooms of a file, and sentences about those that have no outline. Where their names go is found
    later."""
    found, silent = [], []
    square = ifcopenshell.util.unit.calculate_unit_scale(file, "AREAUNIT")
    for space in file.by_type("IfcSpace"):
        shape = body_of(space) if has_body(space) else None
        outline, low, high = _outline(shape) if shape is not None else (None, 0.0, 0.0)
        if outline is None or outline.is_empty:
            silent.append(space.LongName or space.Name or space.GlobalId)
            continue
        middle = outline.representative_point()
        found.append(
            Room(
                space.GlobalId,
                space.Name or "",
                space.LongName or "",
                low,
                high - low,
                float(outline.area),
                _quantity(space, square),
                (middle.x, middle.y),
                0.0,
                tuple(
                    tuple((x, y) for x, y in shapely.get_coordinates(ring)[:-1].tolist())
                    for part in shapely.get_parts(outline)
                    if part.geom_type == "Polygon"
                    for ring in (part.exterior, *part.interiors)
                ),
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


def footprint(corners: Floats) -> shapely.Geometry:
    """The area that triangles (n, 3, 3) cover on the floor, as one valid shape."""
    flat = shapely.polygons(corners[:, :, :2])
    return shapely.union_all(shapely.make_valid(flat[shapely.area(flat) > 1.0]), grid_size=0.01)
