"""Where a building's own axes lie in others."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.building.doors import Point3

Floats = NDArray[np.float64]
#: Angles are rounded to this many decimals of a degree: 0.02 mm over 100 m.
DECIMALS = 5


@dataclass(frozen=True)
class Axes:
    """Where a building's own axes lie in others.

    Attributes:
        origin: x, y and z of their zero there; mm.
        turn: from the x axis there to theirs, counter-clockwise; degrees.
    """

    origin: Point3 = (0.0, 0.0, 0.0)
    turn: float = 0.0


def axes_from(kept: Mapping[str, Any] | None) -> Axes | None:
    """The axes that `asdict` made plain, also after JSON."""
    if kept is None:
        return None
    x, y, z = kept["origin"]
    return Axes((x, y, z), kept["turn"])


def rotation(turn: float) -> Floats:
    """(3, 3): from the file's axes to axes that are turned, exact for whole quarters."""
    angle = math.radians(turn)
    c, s = (math.cos(angle), math.sin(angle))
    if turn % 90.0 == 0.0:
        c, s = round(c), round(s)
    return np.array([[c, s, 0.0], [-s, c, 0.0], [0.0, 0.0, 1.0]])


def compounded(axes: Axes, of_file: Axes) -> Axes:
    """Axes that are told in a file's figures, told in those of the national grid that the file lies on.

    Args:
        of_file: where the file's zero and x axis lie on the grid (IfcMapConversion).

    >>> compounded(Axes((1000.0, 0.0, 0.0), 20.0), Axes((5e6, 6e6, 36_000.0), 90.0)).origin
    (5000000.0, 6001000.0, 36000.0)
    """
    x, y, z = (np.array(of_file.origin) + rotation(of_file.turn).T @ np.array(axes.origin)).round(6).tolist()
    return Axes((x, y, z), round(of_file.turn + axes.turn, DECIMALS))


def between(before: Axes, after: Axes) -> Axes:
    """Where the axes `after` lie in the axes `before`, both of one file.

    >>> between(Axes((1000.0, 0.0, 0.0), 90.0), Axes((1000.0, 500.0, 0.0), 90.0))
    Axes(origin=(500.0, 0.0, 0.0), turn=0.0)
    """
    way = rotation(before.turn) @ (np.array(after.origin) - before.origin)
    x, y, z = (way.round(6) + 0.0).tolist()
    return Axes((x, y, z), round(after.turn - before.turn, DECIMALS) + 0.0)


def in_file(axes: Axes, point: Point3) -> Point3:
    """A point in a building's own axes, in the figures of its file: the opposite of `seen_in`.

    >>> in_file(Axes((1000.0, 0.0, 0.0), 90.0), (500.0, 0.0, 0.0))
    (1000.0, 500.0, 0.0)
    """
    x, y, z = (rotation(axes.turn).T @ np.array(point) + axes.origin + 0.0).tolist()
    return x, y, z


def seen_in(axes: Axes, point: Point3) -> Point3:
    """A point in other axes, as their figures have it.

    >>> seen_in(Axes((1000.0, 0.0, 0.0), 90.0), (1000.0, 500.0, 0.0))
    (500.0, 0.0, 0.0)
    """
    x, y, z = (rotation(axes.turn) @ (np.array(point) - axes.origin) + 0.0).tolist()
    return x, y, z
