"""Doors and windows as schedules list them: where each stands, and how wide and high it is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import shapely

from drafting.building.model import Building, Floats

#: What fills openings (ISO 16739-1), by class.
DOOR_CLASSES = ("IfcDoor", "IfcDoorStandardCase")
WINDOW_CLASSES = ("IfcWindow", "IfcWindowStandardCase")


@dataclass(frozen=True)
class Opening:
    """A door or window: its id and name, whether it is a door, its storey (blank for none), and the size of
    what fills the opening, mm."""

    id: str
    name: str
    is_door: bool
    storey: str
    width: float
    height: float


def openings_of(building: Building) -> list[Opening]:
    """The doors and windows of a building, by their storeys and names."""
    found = []
    for k, element in enumerate(building.elements):
        if element.ifc_class in DOOR_CLASSES + WINDOW_CLASSES:
            vertices = building.vertices[np.unique(building.triangles[building.triangle_element == k])]
            storey = building.storeys[element.storey].name if element.storey >= 0 else ""
            width, _, height = plan_size(vertices)
            is_door = element.ifc_class in DOOR_CLASSES
            found.append(Opening(element.id, element.name, is_door, storey, width, height))
    order = {storey.name: k for k, storey in enumerate(building.storeys)}
    return sorted(found, key=lambda o: (order.get(o.storey, -1), o.name, o.id))


def plan_size(vertices: Floats) -> tuple[float, float, float]:
    """How long a body is along its longer side in plan, however that runs, how wide across, and how high;
    mm."""
    height = round(float(np.ptp(vertices[:, 2])), 1)
    outline = shapely.minimum_rotated_rectangle(shapely.MultiPoint(vertices[:, :2]))
    corners = shapely.get_coordinates(outline)
    if len(corners) < 4:
        return round(float(np.ptp(corners, axis=0).max(initial=0.0)), 1), 0.0, height
    sides = np.hypot(*np.diff(corners[:3], axis=0).T)
    return round(float(sides.max()), 1), round(float(sides.min()), 1), height
