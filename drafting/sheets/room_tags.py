"""Names of rooms on plans: which are seen in a viewport, where, and what each says."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from shapely import Point as ShapelyPoint
from shapely import Polygon, build_area, get_parts, multilinestrings

from drafting.building.model import Storey, storey_in
from drafting.building.rooms import Room
from drafting.geometry.boxes import Box, Point
from drafting.sheets.marked_view import CLEAR, MarkedView
from drafting.views.plan import Plan

#: What a tag takes on paper at most; mm.
WIDE, HIGH = 20.0, 9.0
#: Square millimetres in a square metre and in a square foot.
_METRE, _FOOT = 1e6, 304.8**2


@dataclass(frozen=True)
class RoomTag:
    """The tag of a room: its middle and the width that it may have on paper, mm, and its lines."""

    room: str
    at: Point
    width: float
    number: str
    name: str
    area: str

    @property
    def about(self) -> Box:
        """About where it stands, for what keeps clear of it; mm."""
        wide = min(self.width, WIDE)
        return Box(self.at[0] - wide / 2, self.at[1] - HIGH / 2, wide, HIGH)


def room_tags_in(
    seen: MarkedView, rooms: Sequence[Room], storeys: Sequence[tuple[str, float]], in_feet: bool
) -> list[RoomTag]:
    """The tags of the rooms that a plan's cut goes through, where they lie within the viewport."""
    window = Polygon(seen.viewport.outline).buffer(-CLEAR)
    found = []
    for room in _cut_through(seen, rooms, storeys):
        at = seen.to_paper((*room.place, room.floor))
        dx, dy = seen.viewport.room_offsets.get(room.id, (0.0, 0.0))
        at = at[0] + dx, at[1] + dy
        if window.contains(ShapelyPoint(at)):
            width = room.width * seen.viewport.scale.ratio
            area = area_text(room.area, in_feet)
            found.append(RoomTag(room.id, at, width, room.number, room.name, area))
    return found


def filled_rooms_in(
    seen: MarkedView, rooms: Sequence[Room], storeys: Sequence[tuple[str, float]]
) -> list[tuple[tuple[Point, ...], ...]]:
    """The floors of the rooms that a plan's cut goes through, within the viewport: rings on paper, outline
    first."""
    window = Polygon(seen.viewport.outline)
    found = []
    for room in _cut_through(seen, rooms, storeys):
        rings = [[seen.to_paper((x, y, room.floor)) for x, y in ring] for ring in room.outline]
        area = build_area(multilinestrings([[*ring, ring[0]] for ring in rings]))
        for part in get_parts(area.intersection(window)):
            if part.geom_type == "Polygon" and part.area > 0:
                found.append(tuple(tuple(ring.coords[:-1]) for ring in (part.exterior, *part.interiors)))
    return found


def _cut_through(seen: MarkedView, rooms: Sequence[Room], storeys: Sequence[tuple[str, float]]) -> list[Room]:
    """The rooms that a plan's cut goes through; none in other views."""
    if not isinstance(seen.spec, Plan):
        return []
    storey = storey_in([Storey(*each) for each in storeys], seen.spec.storey)
    if storey is None:
        return []
    cut = storey.elevation + seen.spec.cut
    return [room for room in rooms if room.floor < cut < room.floor + room.height]


def area_text(area: float, in_feet: bool) -> str:
    """An area in mm2 as plans have it.

    >>> area_text(14_238_000, False), area_text(14_238_000, True)
    ('14.2 m²', '153 sq ft')
    """
    return f"{area / _FOOT:.0f} sq ft" if in_feet else f"{area / _METRE:.1f} m²"
