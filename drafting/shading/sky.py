"""How much of the sky points see. Compiled.

Each way to the sky has a map of the faces nearest to it, as fine as the picture wants: what covers a point is
the face in its cell, at the height that this has just there. So no face covers itself, however it is turned.
"""

from __future__ import annotations

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray

from drafting.linework.scene import Faces
from drafting.linework.tolerances import EDGE_ON
from drafting.shading.rays import BEFORE, FACING

Floats = NDArray[np.float64]

#: No map has more cells than this along a side; 33 MB.
MAX_SIDE = 2048
#: A face that covers less of a map than this covers no middle of a cell; cells.
SMALLEST = 1e-6


def open_share(
    faces: Faces,
    terrain: NDArray[np.bool_],
    ways: tuple[Floats, Floats, NDArray[np.bool_]],
    at: Floats,
    normal: Floats,
    apart: float,
) -> Floats:
    """(n,) the share that points see of the light that they face.

    Args:
        faces: what may stand before it, along the axes of a camera.
        terrain: which of them are; these throw the light that comes from below, and stop none of it.
        ways: (d, 3, 3) the axes of each light, its way last; (d,) how much of it there is; (d,) which are
            from below.
        at, normal: (n, 3) the points.
        apart: how far apart what stands before them is looked for; mm.
    """
    axes, light, below = ways
    ends = faces.corners.reshape(-1, 3).T
    bounds = np.array([[e.min() for e in ends], [e.max() for e in ends]]) if len(faces) else np.zeros((2, 3))
    free = np.zeros((len(axes), len(at)), np.bool_)
    _free(faces.corners, faces.normals, faces.solid, terrain, bounds, axes, below, at, normal, apart, free)
    share = np.ones(len(at))
    _summed(axes[:, 2], light, normal, free, share)
    return share


@njit(cache=True, parallel=True)
def _summed(ways, light, normal, free, share):
    for p in prange(normal.shape[0]):
        total, whole = 0.0, 0.0
        for d in range(ways.shape[0]):
            facing = normal[p, 0] * ways[d, 0] + normal[p, 1] * ways[d, 1] + normal[p, 2] * ways[d, 2]
            if facing > FACING:
                whole += light[d] * facing
                if free[d, p]:
                    total += light[d] * facing
        if whole > 0.0:
            share[p] = total / whole


@njit(cache=True, parallel=True)
def _free(corners, normals, solid, terrain, bounds, axes, below, at, normal, apart, free):
    for d in prange(axes.shape[0]):
        a = axes[d]
        low, size, which = _map(corners, normals, solid, terrain, bounds, a, below[d], apart)
        rows, columns = which.shape
        for p in range(at.shape[0]):
            if normal[p, 0] * a[2, 0] + normal[p, 1] * a[2, 1] + normal[p, 2] * a[2, 2] <= FACING:
                continue
            x, y, z = (
                at[p, 0] + BEFORE * normal[p, 0],
                at[p, 1] + BEFORE * normal[p, 1],
                at[p, 2] + BEFORE * normal[p, 2],
            )
            u = x * a[0, 0] + y * a[0, 1] + z * a[0, 2]
            v = x * a[1, 0] + y * a[1, 1] + z * a[1, 2]
            column, row = int((u - low[0]) / size), int((v - low[1]) / size)
            if column < 0 or row < 0 or column >= columns or row >= rows or which[row, column] < 0:
                free[d, p] = True
                continue
            own = x * a[2, 0] + y * a[2, 1] + z * a[2, 2]
            free[d, p] = _height_at(corners[which[row, column]], normals[which[row, column]], a, u, v) <= own


@njit(cache=True)
def _height_at(corners, normal, a, u, v):
    """How high along the way of a light a face lies at a place across it, within its own heights."""
    lowest, highest = np.inf, -np.inf
    for k in range(3):
        h = corners[k, 0] * a[2, 0] + corners[k, 1] * a[2, 1] + corners[k, 2] * a[2, 2]
        lowest, highest = min(lowest, h), max(highest, h)
    up = normal[0] * a[2, 0] + normal[1] * a[2, 1] + normal[2] * a[2, 2]
    across = normal[0] * a[0, 0] + normal[1] * a[0, 1] + normal[2] * a[0, 2]
    along = normal[0] * a[1, 0] + normal[1] * a[1, 1] + normal[2] * a[1, 2]
    c = corners[0]
    h = c[0] * a[2, 0] + c[1] * a[2, 1] + c[2] * a[2, 2]
    u0 = c[0] * a[0, 0] + c[1] * a[0, 1] + c[2] * a[0, 2]
    v0 = c[0] * a[1, 0] + c[1] * a[1, 1] + c[2] * a[1, 2]
    return min(highest, max(lowest, h - (across * (u - u0) + along * (v - v0)) / up))


@njit(cache=True)
def _map(corners, normals, solid, terrain, bounds, a, from_below, apart):
    """The face nearest to a light in each cell: where the cells begin, their size, and the faces; `bounds`
    (2, 3) are those of all faces."""
    low, high = np.zeros(2), np.zeros(2)
    for k in range(2):
        for j in range(3):
            low[k] += min(bounds[0, j] * a[k, j], bounds[1, j] * a[k, j])
            high[k] += max(bounds[0, j] * a[k, j], bounds[1, j] * a[k, j])
    size = apart
    for k in range(2):
        size = max(size, (high[k] - low[k]) / (MAX_SIDE - 1))
    columns = max(1, int((high[0] - low[0]) / size) + 1) if corners.shape[0] else 1
    rows = max(1, int((high[1] - low[1]) / size) + 1) if corners.shape[0] else 1
    height, which = np.full((rows, columns), -np.inf, np.float32), np.full((rows, columns), -1, np.int32)
    u, v, h, per = np.empty(3), np.empty(3), np.empty(3), 1.0 / size
    for f in range(corners.shape[0]):
        if from_below and terrain[f]:
            continue
        up = normals[f, 0] * a[2, 0] + normals[f, 1] * a[2, 1] + normals[f, 2] * a[2, 2]
        if (up if solid[f] else abs(up)) <= EDGE_ON:
            continue
        for c in range(3):
            x, y, z = corners[f, c, 0], corners[f, c, 1], corners[f, c, 2]
            u[c] = (x * a[0, 0] + y * a[0, 1] + z * a[0, 2] - low[0]) * per
            v[c] = (x * a[1, 0] + y * a[1, 1] + z * a[1, 2] - low[1]) * per
            h[c] = x * a[2, 0] + y * a[2, 1] + z * a[2, 2]
        # Most faces of a large building cover no middle of a cell.
        first, last = max(0, int(min(v[0], v[1], v[2]) + 0.5)), int(max(v[0], v[1], v[2]) + 0.5) - 1
        if first > last or int(min(u[0], u[1], u[2]) + 0.5) > int(max(u[0], u[1], u[2]) + 0.5) - 1:
            continue
        # The height of the face is linear over the map: at the place x, y it is base + slope_x x + slope_y y.
        area = (u[1] - u[0]) * (v[2] - v[0]) - (u[2] - u[0]) * (v[1] - v[0])
        if abs(area) < SMALLEST:
            continue
        slope_x = ((h[1] - h[0]) * (v[2] - v[0]) - (h[2] - h[0]) * (v[1] - v[0])) / area
        slope_y = ((u[1] - u[0]) * (h[2] - h[0]) - (u[2] - u[0]) * (h[1] - h[0])) / area
        for row in range(first, min(rows - 1, last) + 1):
            y = row + 0.5
            # From where to where the row lies within the face.
            left, right = np.inf, -np.inf
            for c in range(3):
                n = (c + 1) % 3
                if (v[c] <= y) != (v[n] <= y):
                    x = u[c] + (u[n] - u[c]) * (y - v[c]) / (v[n] - v[c])
                    left, right = min(left, x), max(right, x)
            at = h[0] + slope_y * (y - v[0]) - slope_x * u[0]
            for column in range(max(0, int(left + 0.5)), min(columns - 1, int(right - 0.5)) + 1):
                here = at + slope_x * (column + 0.5)
                if here > height[row, column]:
                    height[row, column], which[row, column] = here, f
    return low, size, which
