"""Doors of an IFC file: how each opens, and where its opening is."""

from __future__ import annotations

from typing import Any

import ifcopenshell.util.element
import numpy as np

from drafting.building.doors import Door, Point3, operation_of
from drafting.building.model import Floats

#: A door that leans more than this (sine) has no swing in a plan.
UPRIGHT = 0.01
#: A frame may be so much narrower or wider than the door's own width says, as a share of it.
SLACK = 0.25


def read_door(product: Any, matrix: Floats, points: Floats, unit: float) -> Door | None:
    """How a door opens; None where the file does not say it, or says what its shape contradicts.

    Args:
        matrix: (4, 4) from the door's own axes to the model's; mm.
        points: (n, 3) corners of its shape in its own axes; mm.
        unit: mm of the file's unit of length.
    """
    kind: Any = ifcopenshell.util.element.get_type(product)
    operation = operation_of(getattr(of, "OperationType", None) for of in (product, kind))
    low, high = points.min(axis=0), points.max(axis=0)
    width, depth, height = (float(x) for x in high - low)
    given = (getattr(product, "OverallWidth", None) or 0.0) * unit
    # A shape that is much wider is the door with something beside it, and nobody knows where its hinge is.
    unlike = given > 0.0 and abs(width - given) > SLACK * given
    if not operation or unlike or width <= 0.0 or height <= 0.0 or depth > width:
        return None
    if abs(matrix[2, 2]) < 1.0 - UPRIGHT:
        return None
    return Door(*in_opening(matrix, low, high), width, height, depth, operation)


def in_opening(matrix: Floats, low: Floats, high: Floats) -> tuple[Point3, Point3, Point3]:
    """Of what fills an opening: where its width begins, at its foot, on the face to which it opens, and unit
    vectors along its width and to that side.

    Args:
        matrix: (4, 4) from its own axes to the model's; mm.
        low, high: (3,) the corners of its box in its own axes; mm.
    """
    x, y, z = (matrix[:3, :3] @ np.array([low[0], high[1], low[2]]) + matrix[:3, 3]).tolist()
    (ax, ay, az), (ix, iy, iz) = matrix[:3, 0].tolist(), matrix[:3, 1].tolist()
    return (x, y, z), (ax, ay, az), (ix, iy, iz)
