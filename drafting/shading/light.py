"""Where light comes from: the sun of a day and hour, or the fixed light of the drawing convention."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from drafting.linework.tolerances import EDGE_ON
from drafting.shading.appearance import DAYS, Light
from drafting.views.camera import UP, Camera

Floats = NDArray[np.float64]

#: The sun as it is seen is half a degree wide; drawn shadows want more to be seen as soft. Degrees.
SUN_WIDTH = 3.0
#: From so many places of a wide sun light is looked for.
SUN_PLACES = 12
GOLDEN = math.pi * (3 - math.sqrt(5))


def sun_place(month: int, day: int, hour: float, latitude: float) -> tuple[float, float]:
    """Altitude, and bearing clockwise from true north, of the sun; degrees.

    Its declination is Spencer's series (1971), within 0.04 degrees; at equinox it is at 90 degrees less the
    latitude at noon.

    >>> [round(x) for x in sun_place(3, 21, 12, 50)]
    [40, 180]
    """
    number = sum(DAYS[: month - 1]) + day - (1 if month > 2 else 0)
    g = 2 * math.pi * (number - 1) / 365
    declination = (
        0.006918
        - 0.399912 * math.cos(g)
        + 0.070257 * math.sin(g)
        - 0.006758 * math.cos(2 * g)
        + 0.000907 * math.sin(2 * g)
        - 0.002697 * math.cos(3 * g)
        + 0.00148 * math.sin(3 * g)
    )
    angle, phi = math.radians(15 * (hour - 12)), math.radians(latitude)
    up = math.sin(phi) * math.sin(declination) + math.cos(phi) * math.cos(declination) * math.cos(angle)
    east = -math.cos(declination) * math.sin(angle)
    north = math.cos(phi) * math.sin(declination) - math.sin(phi) * math.cos(declination) * math.cos(angle)
    return math.degrees(math.asin(max(-1.0, min(1.0, up)))), math.degrees(math.atan2(east, north)) % 360


def way_to_light(light: Light, camera: Camera, true_north: float | None) -> Floats:
    """The unit vector to the light, in model axes; below the horizon where the sun is.

    The fixed light falls along the diagonal of a cube: on an elevation from the upper left, so that a shadow
    is as wide and as deep as what casts it stands out; on a plan from the lower left.
    """
    if light.source == "sun":
        altitude, bearing = map(math.radians, sun_place(light.month, light.day, light.hour, light.latitude))
        bearing += math.radians(true_north or 0.0)
        flat = math.cos(altitude)
        return np.array([math.sin(bearing) * flat, math.cos(bearing) * flat, math.sin(altitude)])
    level = camera.toward - UP * float(camera.toward @ UP)
    length = float(np.linalg.norm(level))
    front = -camera.up if length < EDGE_ON else level / length
    way = front - camera.right + UP
    return np.asarray(way / np.linalg.norm(way))


def about(way: Floats) -> list[Floats]:
    """Ways to places spread evenly over a sun that is wide enough for soft shadows."""
    across = axes_along(way)
    radius = math.tan(math.radians(SUN_WIDTH) / 2)
    found = []
    for k in range(SUN_PLACES):
        r, turn = radius * math.sqrt((k + 0.5) / SUN_PLACES), GOLDEN * k
        moved = way + r * (math.cos(turn) * across[0] + math.sin(turn) * across[1])
        found.append(moved / np.linalg.norm(moved))
    return found


def sky_ways(count: int) -> Floats:
    """(count, 3) unit vectors spread evenly over the upper half of a sphere, z up."""
    k = np.arange(count) + 0.5
    height = k / count
    flat = np.sqrt(1 - height**2)
    return np.stack([flat * np.cos(GOLDEN * k), flat * np.sin(GOLDEN * k), height], axis=1)


def axes_along(way: Floats) -> Floats:
    """(3, 3): two unit vectors across a way, and the way itself."""
    other = np.eye(3)[int(np.argmin(np.abs(way)))]
    first = np.cross(other, way)
    first /= np.linalg.norm(first)
    return np.stack([first, np.cross(way, first), way])
