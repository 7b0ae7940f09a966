"""Rooms: the spaces of a building, and how large each is on its floor."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

import shapely

Point = tuple[float, float]


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
        outline: of its floor, x and y: rings, those within another being holes; mm.
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
    outline: tuple[tuple[Point, ...], ...] = ()

    def scaled(self, by: float) -> Room:
        """The room where all of the file's figures are so many times as large."""
        return replace(
            self,
            floor=self.floor * by,
            height=self.height * by,
            area=self.area * by * by,
            place=(self.place[0] * by, self.place[1] * by),
            width=self.width * by,
            outline=tuple(tuple((x * by, y * by) for x, y in ring) for ring in self.outline),
        )

    @property
    def shape(self) -> shapely.Geometry:
        """Its outline as one shape."""
        return shapely.make_valid(shapely.build_area(shapely.multilinestrings(
            [[*ring, ring[0]] for ring in self.outline]
        )))  # fmt: skip


def room_from(kept: Mapping[str, Any]) -> Room:
    """The room that `asdict` made plain, also after JSON."""
    outline = tuple(tuple((x, y) for x, y in ring) for ring in kept.get("outline", ()))
    x, y = kept["place"]
    return Room(**{**kept, "place": (x, y), "outline": outline})
