"""A view as marks are put on it: where the model lies on paper, and where there is room for them."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from shapely import LineString, Polygon
from shapely import box as shapely_box
from shapely.geometry.base import BaseGeometry

from drafting.geometry.boxes import Box, Point, union
from drafting.sheets.viewport import Viewport
from drafting.views.spec import AnyView

#: How near to the outline of a viewport a mark may come; paper mm.
CLEAR = 1.0
#: Between the building, or what stands beside it, and the marks around it; mm.
AROUND = 3.0
#: A line that is drawn out reaches beyond all that can stand beside the building; mm.
FAR = 50.0
#: A line shorter than this on paper could not be seen apart from its own ends; mm.
MIN_LINE = 12.0
#: Cosines that differ from one or zero by less are assumed for it.
STRAIGHT = 1e-6

Axis = tuple[float, float, float]


@dataclass(frozen=True)
class MarkedView:
    """A viewport, the view that is seen through it, and the axes of its drawing (origin in mm).

    Attributes:
        building: what is drawn of the building lies within it, paper mm; None where that is not known.
        floors: what a plan shows of the floors of rooms, clear of walls; paper mm.
        taken: where something stands already that marks keep clear of, such as dimensions; paper mm.
    """

    viewport: Viewport
    view: str
    spec: AnyView
    right: Axis
    up: Axis
    origin: Axis
    building: Box | None = None
    taken: tuple[Box, ...] = ()
    floors: tuple[Polygon, ...] = ()

    def to_paper(self, point: Axis) -> Point:
        """Where a point of the model lies on the sheet."""
        away = tuple(p - o for p, o in zip(point, self.origin, strict=True))
        return self.viewport.to_paper(_dot(away, self.right), _dot(away, self.up))

    def way(self, direction: Axis) -> Point:
        """A direction of the model as it runs on paper; shorter where it leans out of it."""
        turn = math.radians(self.viewport.turn)
        u, v = _dot(direction, self.right), _dot(direction, self.up)
        return u * math.cos(turn) - v * math.sin(turn), u * math.sin(turn) + v * math.cos(turn)


def room_for_marks(seen: MarkedView, beyond: float) -> BaseGeometry:
    """Where marks stand: within the outline of a viewport; but where it shows the end of the building, so far
    beyond that and beyond what stands there already, whether the outline reaches so far or not."""
    outline = Polygon(seen.viewport.outline).buffer(-CLEAR)
    if seen.building is None or seen.viewport.shape != "rectangle":
        return outline
    own, around = seen.building, union([seen.building, *seen.taken])
    west, south, east, north = outline.bounds
    return shapely_box(
        around.x - beyond if own.x >= west else west,
        around.y - beyond if own.y >= south else south,
        around.right + beyond if own.right <= east else east,
        around.top + beyond if own.top <= north else north,
    )


def foot_is_cropped(seen: MarkedView) -> bool:
    """Whether a viewport's lower edge goes through the building, so that marks there lie on what is drawn."""
    lower_edge = Polygon(seen.viewport.outline).bounds[1] + CLEAR
    return seen.building is not None and seen.building.y < lower_edge


def drawn_out(seen: MarkedView, line: list[Point], *, first: bool = False) -> list[Point]:
    """A line on paper whose ends, or whose first end alone, are drawn out beyond what is about the building;
    one that ends within the building ends there."""
    if seen.building is None or seen.viewport.shape != "rectangle":
        return line
    own, around = seen.building, union([seen.building, *seen.taken])
    far = around.width + around.height + FAR
    for end, inner in ((0, 1),) if first else ((0, 1), (-1, -2)):
        (x, y), (bx, by) = line[end], line[inner]
        if not (own.x < x < own.right and own.y < y < own.top):
            way = unit_vector((x - bx, y - by))
            line[end] = x + way[0] * far, y + way[1] * far
    return line


def looks_down(seen: MarkedView) -> bool:
    return abs(_dot(_cross(seen.right, seen.up), (0.0, 0.0, 1.0)) - 1) < STRAIGHT


def is_upright(seen: MarkedView) -> bool:
    return seen.up[2] > 1 - STRAIGHT


def north_on_paper(seen: MarkedView, true_north: float | None) -> Point | None:
    """The way to north on paper, a unit vector: to the model's true north (degrees from y), or to its y
    axis."""
    if not looks_down(seen):
        return None
    angle = math.radians(true_north or 0.0)
    return unit_vector(seen.way((math.sin(angle), math.cos(angle), 0.0)))


def longest_part(geometry: BaseGeometry) -> LineString | None:
    parts = [
        g for g in getattr(geometry, "geoms", [geometry]) if isinstance(g, LineString) and not g.is_empty
    ]
    return max(parts, key=lambda g: g.length, default=None)


def unit_vector(vector: Sequence[float]) -> Point:
    length = math.hypot(*vector) or 1.0
    return vector[0] / length, vector[1] / length


def _dot(a: Sequence[float], b: Sequence[float]) -> float:
    return sum(x * y for x, y in zip(a, b, strict=True))


def _cross(a: Axis, b: Axis) -> Axis:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]
