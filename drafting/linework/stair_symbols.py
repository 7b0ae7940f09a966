"""The symbol of a stair or ramp in a plan: a walking line with a dot at its foot and an arrow up, broken off
where the cut goes through."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.views.camera import Camera

Floats = NDArray[np.float64]

#: A tread is level within this (sine), and no smaller than this, mm2; heights this near are one tread, mm.
LEVEL, SMALLEST, SAME_HEIGHT = 0.01, 20_000.0, 5.0
#: Treads further apart than this in height are those of different flights; mm.
HIGHEST_RISE = 400.0
#: Normals of a ramp's slope, upward: at most 1 in 2, at least 1 in 50.
STEEPEST, FLATTEST = 0.89, 0.0002
#: The dot at the foot, and the arrow's length and half width; mm.
DOT, ARROW, ARROW_HALF = 50.0, 160.0, 55.0
#: How far the break line leans back across the stair, as a share of its width, and reaches over it; mm.
LEAN, OVER = 0.4, 80.0


@dataclass(frozen=True, eq=False)
class Tread:
    """A level of a stair: its height over the origin, its middle, and its area on paper."""

    height: float
    middle: Floats
    area: shapely.Geometry


@dataclass(frozen=True, eq=False)
class StairSymbol:
    """Lines (n, 2) of u, v.

    Attributes:
        lines: what is drawn.
        above: what is above the cut.
        broken: a point of the line where it is broken off, and the direction of what is left out; None where
            the cut leaves it whole.
    """

    lines: list[Floats]
    above: list[Floats]
    broken: tuple[Floats, Floats] | None


@dataclass(frozen=True, eq=False)
class Slope:
    """A sloping face: its normal, the way up it on paper, its middle, from where to where it reaches along
    that way, its width across it, and its lowest and highest depth; mm."""

    normal: Floats
    way: Floats
    middle: Floats
    low: float
    high: float
    width: float
    bottom: float
    top: float


def stair_symbol(building: Building, camera: Camera, element: int) -> StairSymbol | None:
    """The symbol of a stair below or through the cut of a plan; None where it has no treads that are seen."""
    treads = treads_of(building, camera, element)
    cut = camera.cuts[0].depth
    below = [tread for tread in treads if tread.height < cut]
    if len(treads) < 2 or not below:
        return None
    below = _seen(building, camera, element, below)
    if len(below) < 2:
        return None
    above = [tread for tread in treads if tread.height >= cut]
    path = np.array([tread.middle for tread in below])
    foot = path[0] - (path[1] - path[0]) / 2
    if not above:
        return StairSymbol([*_walked(np.concatenate([[foot], path]))], [], None)
    riser = (below[-1].middle + above[0].middle) / 2
    way = _unit(above[0].middle - below[-1].middle)
    across = np.array([-way[1], way[0]])
    width = _extent(below[-1].area, across)
    left, right = (riser + across * (side - riser @ across) for side in width)
    lean = LEAN * (width[1] - width[0])
    ends = left + _unit(left - right) * OVER - way * lean, right + _unit(right - left) * OVER
    slanted = _unit(ends[1] - ends[0])
    away = np.array([-slanted[1], slanted[0]])
    away = away if away @ way > 0 else -away
    middle = (ends[0] + ends[1]) / 2
    jog = min(60.0, (width[1] - width[0]) / 8)
    zigzag = np.array([
        ends[0], middle - slanted * jog, middle - slanted * jog / 2 + away * 1.5 * jog,
        middle + slanted * jog / 2 - away * 1.5 * jog, middle + slanted * jog, ends[1],
    ])  # fmt: skip
    walked = np.concatenate([[foot], path])
    walked = walked[(walked - middle) @ away < -ARROW]
    stop = walked[-1] + way * max(0.0, (middle - walked[-1]) @ away / max(way @ away, 0.1) - 1.5 * jog - DOT)
    lines = [zigzag, *_walked(np.concatenate([walked, [stop]]))] if len(walked) else [zigzag]
    return StairSymbol(lines, _risers(above, below[-1]), (middle, away))


def ramp_symbol(building: Building, camera: Camera, element: int) -> StairSymbol | None:
    """An arrow up the largest slope of a ramp that is below the cut of a plan; None where there is none."""
    slope = largest_slope(building, camera, element)
    if slope is None or slope.top >= camera.cuts[0].depth:
        return None
    way, low, high = slope.way, slope.low, slope.high
    inset, at = min(2 * DOT, (high - low) / 8), float(slope.middle @ way)
    return StairSymbol(_walked(slope.middle + np.outer([low + inset - at, high - inset - at], way)), [], None)


def largest_slope(building: Building, camera: Camera, element: int) -> Slope | None:
    """The largest sloping upper face of an element; None where it has none."""
    topology = building.topology
    own = building.triangle_element[topology.face_source] == element
    sloping = own & (topology.normals[:, 2] > STEEPEST) & (topology.normals[:, 2] < 1.0 - FLATTEST)
    faces = np.flatnonzero(sloping)
    if not len(faces):
        return None
    corners = camera.project(topology.points[topology.faces[faces]].reshape(-1, 3)).reshape(-1, 3, 3)
    size = shapely.area(shapely.polygons(corners[:, :, :2]))
    planes, plane = np.unique(topology.plane[faces], return_inverse=True)
    largest = plane.reshape(-1) == np.argmax(np.bincount(plane.reshape(-1), size, len(planes)))
    corners, normal = corners[largest], topology.normals[faces[largest][0]]
    area = shapely.union_all(shapely.polygons(corners[:, :, :2]), grid_size=0.1)
    way = _unit(-(camera.axes[:2] @ normal))
    middle = np.array(shapely.get_coordinates(area.centroid)[0])
    low, high = _extent(area, way)
    height = corners[:, :, 2]
    width = extent_across(area, way)
    return Slope(normal, way, middle, low, high, width, float(height.min()), float(height.max()))


def extent_across(area: shapely.Geometry, way: Floats) -> float:
    """How wide an area is across a way; mm."""
    low, high = _extent(area, np.array([-way[1], way[0]]))
    return high - low


def treads_of(building: Building, camera: Camera, element: int) -> list[Tread]:
    """The level upper faces of an element, one for each height, from the lowest up."""
    topology = building.topology
    own = building.triangle_element[topology.face_source] == element
    faces = np.flatnonzero(own & (topology.normals[:, 2] > 1.0 - LEVEL**2))
    corners = camera.project(topology.points[topology.faces[faces]].reshape(-1, 3)).reshape(-1, 3, 3)
    height = corners[:, :, 2].mean(axis=1)
    found = []
    order = np.argsort(height, kind="stable")
    steps = np.flatnonzero(np.diff(height[order]) > SAME_HEIGHT) + 1
    for group in np.split(order, steps):
        if not len(group):
            continue
        area = shapely.union_all(shapely.polygons(corners[group][:, :, :2]), grid_size=0.1)
        if area.area >= SMALLEST:
            middle = np.array(shapely.get_coordinates(area.centroid)[0])
            found.append(Tread(float(height[group].mean()), middle, area))
    return _one_flight(found)


def _one_flight(treads: list[Tread]) -> list[Tread]:
    """The longest run of treads that can be climbed."""
    runs: list[list[Tread]] = [[]]
    for tread in treads:
        if runs[-1] and tread.height - runs[-1][-1].height > HIGHEST_RISE:
            runs.append([])
        runs[-1].append(tread)
    return max(runs, key=len)


def _seen(building: Building, camera: Camera, element: int, treads: list[Tread]) -> list[Tread]:
    """The longest run of treads that nothing else between them and the cut lies over."""
    topology = building.topology
    others = building.triangle_element[topology.face_source] != element
    faces = np.flatnonzero(others & (np.abs(topology.normals[:, 2]) > LEVEL))
    corners = camera.project(topology.points)[topology.faces[faces]]
    normals = topology.normals[faces]
    runs: list[list[Tread]] = [[]]
    for tread in treads:
        over = np.flatnonzero(_holds(corners[:, :, :2], tread.middle))
        # How high each of them is there.
        off = tread.middle - corners[over, 0, :2]
        height = corners[over, 0, 2] - (off * normals[over, :2]).sum(axis=1) / normals[over, 2]
        if ((height > tread.height + SAME_HEIGHT) & (height < camera.cuts[0].depth)).any():
            runs.append([])
        else:
            runs[-1].append(tread)
    return max(runs, key=len)


def _holds(triangles: Floats, point: Floats) -> NDArray[np.bool_]:
    """Which triangles (n, 3, 2) a point lies in."""
    turn = []
    for k in range(3):
        a, b = triangles[:, k], triangles[:, (k + 1) % 3]
        turn.append((b[:, 0] - a[:, 0]) * (point[1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (point[0] - a[:, 0]))
    turns = np.array(turn)
    return np.asarray((turns > 0).all(axis=0) | (turns < 0).all(axis=0))


def _walked(path: Floats) -> list[Floats]:
    """A walking line with a dot at its foot and an arrow at its head."""
    way = _unit(path[-1] - path[-2]) if len(path) > 1 else np.array([1.0, 0.0])
    across = np.array([-way[1], way[0]])
    head, foot = path[-1], path[0]
    angle = np.linspace(0.0, 2 * math.pi, 17)
    dot = foot + DOT * np.stack([np.cos(angle), np.sin(angle)], axis=1)
    arrow = np.array([
        head - way * ARROW + across * ARROW_HALF, head, head - way * ARROW - across * ARROW_HALF,
    ])  # fmt: skip
    return [path, arrow, dot]


def _risers(above: list[Tread], last: Tread) -> list[Floats]:
    """The fronts of the treads above the cut, and the two sides of the stair there."""
    before = [last, *above]
    lines: list[Floats] = []
    sides: tuple[list[Floats], list[Floats]] = ([], [])
    for lower, upper in zip(before, above, strict=False):
        way = _unit(upper.middle - lower.middle)
        across = np.array([-way[1], way[0]])
        at = (lower.middle + upper.middle) / 2
        low, high = _extent(upper.area, across)
        ends = at + across * (low - at @ across), at + across * (high - at @ across)
        lines.append(np.array(ends))
        for side, end in zip(sides, ends, strict=True):
            side.append(end)
    return [*lines, *(np.array(side) for side in sides if len(side) > 1)]


def _extent(area: shapely.Geometry, along: Floats) -> tuple[float, float]:
    at = shapely.get_coordinates(area) @ along
    return float(at.min()), float(at.max())


def _unit(vector: Floats) -> Floats:
    length = float(np.hypot(*vector))
    return vector / length if length > 0 else np.array([1.0, 0.0])
