"""Pictures of doors and windows: each alone, as it is seen from straight before it."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import shapely

from drafting.building.element_data import BuildingData, Outline
from drafting.building.model import Building
from drafting.building.openings import DOOR_CLASSES, WINDOW_CLASSES
from drafting.linework.engine import draw_from
from drafting.views.camera import UP, Camera

#: So many different ones have a picture; the rest have none.
MAX_PICTURES = 400
#: Of one picture; a finer one says no more at its size.
MAX_POINTS = 1_500


def with_pictures(data: BuildingData, building: Building) -> BuildingData:
    """The data of a building with a picture of each door and window; those of one type and size have the same
    one, which is made once."""
    places = {element.id: k for k, element in enumerate(building.elements)}
    made: dict[tuple[object, ...], tuple[Outline, ...]] = {}
    elements = []
    for element in data.elements:
        if element.element_class not in DOOR_CLASSES + WINDOW_CLASSES:
            elements.append(element)
            continue
        alike = (element.element_class, element.values.get("Type", element.name), element.size)
        if alike not in made and len(made) < MAX_PICTURES:
            made[alike] = _picture(building, places[element.id])
        elements.append(replace(element, picture=made.get(alike, ())))
    return replace(data, elements=tuple(elements))


def _picture(building: Building, k: int) -> tuple[Outline, ...]:
    """The lines of one element, mm from its lower left corner."""
    own = building.triangles[building.triangle_element == k]
    used, triangles = np.unique(own, return_inverse=True)
    vertices = building.vertices[used]
    alone = Building(
        (building.elements[k],),
        building.storeys,
        building.materials,
        vertices,
        triangles.reshape(-1, 3).astype(np.int32),
        np.zeros(len(own), np.int32),
        building.triangle_material[building.triangle_element == k],
    )
    right = _along(vertices)
    toward = np.cross(right, UP)
    linework = draw_from(alone, Camera(right, UP, toward, vertices.mean(axis=0)))
    kept = [line.points[:, :2] for line in linework.lines if line.role not in ("hidden", "symbol")]
    if not kept or sum(map(len, kept)) > MAX_POINTS:
        return ()
    low = np.min([points.min(axis=0) for points in kept], axis=0)
    return tuple(tuple((round(float(u), 1), round(float(v), 1)) for u, v in points - low) for points in kept)


def _along(vertices: np.ndarray) -> np.ndarray:
    """The way along the longer side of what is seen from above, as one who stands before it has it."""
    outline = shapely.minimum_rotated_rectangle(shapely.MultiPoint(vertices[:, :2]))
    corners = shapely.get_coordinates(outline)
    if len(corners) < 4:
        return np.array([1.0, 0.0, 0.0])
    sides = np.diff(corners[:3], axis=0)
    x, y = sides[np.argmax(np.hypot(*sides.T))]
    length = float(np.hypot(x, y))
    way = 1.0 if x > 1e-6 or (abs(x) <= 1e-6 and y > 0) else -1.0
    return np.array([way * x / length, way * y / length, 0.0])
