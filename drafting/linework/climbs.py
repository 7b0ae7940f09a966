"""Where flights and ramps of a building begin and how steep they are, measured on their shapes."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from drafting.building.climbs import RAMP_CLASSES, STAIR_CLASSES, Climb, Steps
from drafting.building.model import Building
from drafting.linework.stair_symbols import extent_across, largest_slope, treads_of
from drafting.views.camera import UP, Camera

#: Steps that differ by less are alike; mm.
ALIKE = 10.0


def climbs_of(building: Building) -> list[Climb]:
    """The flights and ramps of a building, by their ids. A flight needs two treads, a ramp a sloping face."""
    camera = Camera(np.array([1.0, 0, 0]), np.array([0, 1.0, 0]), UP, np.zeros(3))
    found = []
    for k, element in enumerate(building.elements):
        climb = None
        if element.ifc_class in STAIR_CLASSES:
            climb = _flight(building, camera, k)
        elif element.ifc_class in RAMP_CLASSES:
            climb = _ramp(building, camera, k)
        if climb is not None:
            found.append(replace(climb, id=element.id))
    return sorted(found, key=lambda climb: climb.id)


def _flight(building: Building, camera: Camera, element: int) -> Climb | None:
    treads = treads_of(building, camera, element)
    if len(treads) < 2:
        return None
    middles, heights = np.array([t.middle for t in treads]), np.array([t.height for t in treads])
    way = middles[1] - middles[0]
    going = float(np.linalg.norm(way))
    if not going:
        return None
    rises, goings = np.diff(heights), np.linalg.norm(np.diff(middles, axis=0), axis=1)
    given = building.steps.get(element, Steps())
    steps = Steps(
        given.risers,
        given.rise if given.rise is not None else _usual(rises),
        given.going if given.going is not None else _usual(goings),
    )
    foot = middles[0] - way / 2
    rise = float(np.median(rises))
    unit = way / going
    width = extent_across(treads[0].area, unit)
    return Climb("", (float(foot[0]), float(foot[1])), (float(unit[0]), float(unit[1])), width,
                 float(heights[0]) - rise, float(heights[-1]), steps)  # fmt: skip


def _usual(measures: np.ndarray) -> float | None:
    """What most steps measure; None where they differ, as where a flight winds."""
    middle = float(np.median(measures))
    return round(middle, 1) if (np.abs(measures - middle) < ALIKE).mean() > 0.5 else None


def _ramp(building: Building, camera: Camera, element: int) -> Climb | None:
    slope = largest_slope(building, camera, element)
    if slope is None:
        return None
    run = math.hypot(slope.normal[0], slope.normal[1]) / slope.normal[2]
    foot = slope.middle - slope.way * (float(slope.middle @ slope.way) - slope.low)
    (x, y), (u, v) = foot.tolist(), slope.way.tolist()
    return Climb("", (x, y), (u, v), slope.width, slope.bottom, slope.top, slope=round(float(run), 5))
