"""Where in each room its name has most room, clear of what stands there."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace

import numpy as np
import shapely
from shapely import affinity
from shapely.ops import polylabel

from drafting.building.doors import Door
from drafting.building.model import Building, Floats
from drafting.building.rooms import Point

#: A tag is about so many times as wide as it is high: room for it is looked for in a plan squeezed by that.
TAG_SHAPE = 1.8
#: How near the best place is found; mm.
NEAR_BEST = 50.0
#: What stands on the floor is kept clear of by so much; mm.
CLEAR = 100.0
#: What begins no higher than this over a floor stands on it; what ends lower is no hindrance. mm.
REACH, FLAT = 1200.0, 30.0


def with_room_places(building: Building) -> Building:
    """A building whose rooms know where their names go."""
    if not building.rooms:
        return building
    obstacles, rooms = _Obstacles(building), []
    for room in building.rooms:
        outline = room.shape
        place, width = roomiest(outline, obstacles.on(room.floor, outline))
        rooms.append(replace(room, place=place, width=width))
    return replace(building, rooms=tuple(rooms))


def roomiest(outline: shapely.Geometry, taken: Iterable[shapely.Geometry]) -> tuple[Point, float]:
    """Where in an outline a tag has most room beside what stands there, and how wide it may be; mm."""
    free = shapely.difference(outline, shapely.union_all(list(taken)))
    best: tuple[float, Point] = (0.0, (0.0, 0.0))
    for part in shapely.get_parts(free if free.area > 0 else outline):
        if part.geom_type != "Polygon" or part.area < 1.0:
            continue
        squeezed = affinity.scale(part, 1.0 / TAG_SHAPE, 1.0, origin=(0, 0))
        at = polylabel(squeezed, NEAR_BEST)
        radius = float(squeezed.boundary.distance(at))
        best = max(best, (radius, (at.x * TAG_SHAPE, at.y)))
    return best[1], 2 * best[0] * TAG_SHAPE


def swept_by(door: Door) -> shapely.Geometry:
    """The floor that a door needs to open."""
    corner, along, into = (np.array(v[:2]) for v in (door.corner, door.along, door.into))
    across, far = along * door.width, into * door.width
    return shapely.MultiPoint([corner, corner + across, corner + far, corner + across + far]).convex_hull


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
