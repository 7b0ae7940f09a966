"""Rooms: the spaces of a building, how large each is on its floor, and where its name fits best."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

import numpy as np
import shapely
from numpy.typing import NDArray
from shapely import affinity
from shapely.ops import polylabel

from drafting.building.doors import Door

Floats = NDArray[np.float64]
Point = tuple[float, float]

#: A tag is about so many times as wide as it is high: room for it is looked for in a plan squeezed by that.
TAG_SHAPE = 1.8
#: How near the best place is found; mm.
NEAR_BEST = 50.0
#: What stands on the floor is kept clear of by so much; mm.
CLEAR = 100.0


@dataclass(frozen=True)
class Room:
    """A space.

    Attributes:
        id: the file's own GUID.
        number, name: as the file has them; blank for none.
        floor, height: of its floor over the model's zero, and from there to its top; mm.
        area: of its outline, mm2.
        quantity: the floor area that the file gives, m2; None for none.
        place: x and y where its name has most room; mm.
        width: how wide its name may be there; mm.
    """

    id: str
    number: str
    name: str
    floor: float
    height: float
    area: float
    quantity: float | None
    place: Point
    width: float

    def scaled(self, by: float) -> Room:
        """The room where all of the file's figures are so many times as large."""
        return replace(
            self,
            floor=self.floor * by,
            height=self.height * by,
            area=self.area * by * by,
            place=(self.place[0] * by, self.place[1] * by),
            width=self.width * by,
        )


def footprint(corners: Floats) -> shapely.Geometry:
    """The area that triangles (n, 3, 3) cover on the floor, as one valid shape."""
    flat = shapely.polygons(corners[:, :, :2])
    return shapely.union_all(shapely.make_valid(flat[shapely.area(flat) > 1.0]), grid_size=0.01)


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
