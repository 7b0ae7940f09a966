"""The outline of many faces as one shape."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import shapely
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.scene import Faces

Floats = NDArray[np.float64]

#: Gaps between neighbours narrower than this are joints, and no part of an outline; mm.
JOINT = 10.0


def outline_of(faces: Faces) -> list[tuple[int, Floats]]:
    """(element, (n, 2) points) of the lines round all that faces cover; each line is of the element that it
    runs along."""
    flat = np.flatnonzero(np.abs(faces.normals[:, 2]) > tol.EDGE_ON)
    shapes, owners = [], []
    order = flat[np.argsort(faces.element[flat], kind="stable")]
    for which in np.split(order, np.flatnonzero(np.diff(faces.element[order])) + 1):
        if len(which):
            polygons = shapely.make_valid(shapely.polygons(faces.corners[which][:, :, :2]))
            shapes.append(shapely.union_all(polygons, grid_size=tol.REGION_GRID))
            owners.append(int(faces.element[which[0]]))
    if not shapes:
        return []
    whole = shapely.union_all(shapes, grid_size=tol.REGION_GRID)
    # Joints close, and corners stay where they were.
    wider = shapely.buffer(whole, JOINT, join_style="mitre")
    closed = shapely.union(whole, shapely.buffer(wider, -JOINT, join_style="mitre"))
    outline = shapely.simplify(closed, tol.NEAR_LINE).boundary
    tree = shapely.STRtree([shape.boundary for shape in shapes])
    found = []
    for line in shapely.get_parts(shapely.line_merge(outline)):
        points = shapely.get_coordinates(line)
        for a, b in pairwise(points):
            beside = int(tree.nearest(shapely.Point((a + b) / 2)))
            found.append((owners[beside], np.array([a, b])))
    return found
