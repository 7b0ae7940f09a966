"""Faces as the search for what is hidden wants them: over a grid of the paper, the nearest first.
Compiled."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.grid import Floats, Grid, Longs, cells_within
from drafting.linework.scene import Faces

_BESIDE, _EDGE_ON = tol.BESIDE, tol.EDGE_ON


class CoveringFaces(NamedTuple):
    """n faces as the kernels take them, the nearest first.

    Attributes:
        flat: (n, 3, 2) corners on paper, mm.
        borders: (n, 3, 3) inward border lines a, b, c: a point is within where a u + b v + c > 0.
        depth_plane: (n, 4) x, y, z and slope: the depth at u, v is x u + y v + z.
        bounds: (n, 4) least u, v and greatest u, v.
        nearest: (n,) greatest depth, toward the viewer.
        normals: (n, 3).
        plane, element, material: (n,) numbers.
    """

    flat: Floats
    borders: Floats
    depth_plane: Floats
    bounds: Floats
    nearest: Floats
    normals: Floats
    plane: NDArray[np.integer]
    element: NDArray[np.integer]
    material: NDArray[np.integer]


class CellFaces(NamedTuple):
    """The faces of each cell of a grid: those of cell k are `entry[start[k] : start[k + 1]]`.

    Attributes:
        start: (cells + 1,) int64.
        entry: (sum,) int32, indices of faces.
        solid: (cells,) the depth behind which one face covers all of the cell.
        low, size, shape: those of the grid.
    """

    start: Longs
    entry: NDArray[np.int32]
    solid: Floats
    low: Floats
    size: float
    shape: Longs


@dataclass(frozen=True, eq=False)
class Covering:
    """Faces as the search wants them: the nearest first, and those that each cell of the paper can see.

    `solid` is, for each cell, the depth behind which one face covers all of it: nothing deeper is seen
    there, and so no face deeper than that is listed. What a drawing costs depends on what is seen.
    """

    faces: CoveringFaces
    grid: CellFaces

    @classmethod
    def of(cls, faces: Faces, thorough: bool) -> Covering:
        """The faces that cover something; `thorough` lists those that nothing of is seen too."""
        listed = covering_faces(faces)
        grid = Grid.over(listed.bounds)
        count = np.zeros(grid.cells, np.int64)
        nothing = np.empty(0, np.int32)
        lists = CellFaces(count, nothing, np.full(grid.cells, -np.inf), grid.low, grid.size, grid.shape)
        _list(listed, lists, thorough, count, False)
        start = np.concatenate([np.zeros(1, np.int64), np.cumsum(count)])
        lists = lists._replace(start=start, entry=np.empty(int(start[-1]), np.int32))
        lists.solid[:] = -np.inf
        _list(listed, lists, thorough, start[:-1].copy(), True)
        return cls(listed, lists)


def covering_faces(faces: Faces) -> CoveringFaces:
    """Those of some faces that cover something on paper, the nearest first."""
    nearest = _nearest(faces.corners, faces.normals, faces.solid)
    which = np.flatnonzero(nearest > -np.inf)
    faces = faces.select(which[np.argsort(-nearest[which], kind="stable")])
    borders, depth_plane, bounds, nearest = _prepare(faces.corners, faces.normals)
    return CoveringFaces(
        np.ascontiguousarray(faces.corners[:, :, :2]),
        borders,
        depth_plane,
        bounds,
        nearest,
        faces.normals,
        faces.plane,
        faces.element,
        faces.material,
    )


@njit(cache=True, parallel=True)
def _nearest(corners, normals, solid):
    """The greatest depth of each face that covers something on paper: not of those seen edge on, thinner than
    rounding, or a body's far side, which have -inf."""
    found = np.full(corners.shape[0], -np.inf)
    for f in prange(corners.shape[0]):
        n = normals[f, 2]
        if (n if solid[f] else abs(n)) <= _EDGE_ON:
            continue
        c = corners[f]
        au, av = c[1, 0] - c[0, 0], c[1, 1] - c[0, 1]
        bu, bv = c[2, 0] - c[0, 0], c[2, 1] - c[0, 1]
        longest = np.sqrt(max(au * au + av * av, bu * bu + bv * bv, (bu - au) ** 2 + (bv - av) ** 2))
        if abs(au * bv - av * bu) > 1e-4 * max(longest, 1e-4):
            found[f] = max(c[0, 2], c[1, 2], c[2, 2])
    return found


@njit(cache=True, parallel=True)
def _prepare(corners, normals):
    """For each face: inward border lines (n, 3, 3), its depth as a plane over u, v with its slope (n, 4), its
    bounds on paper (n, 4), and its nearest depth (n,)."""
    count = corners.shape[0]
    borders, plane = np.empty((count, 3, 3)), np.empty((count, 4))
    bounds, nearest = np.empty((count, 4)), np.empty(count)
    for f in prange(count):
        c, n = corners[f], normals[f]
        area = (c[1, 0] - c[0, 0]) * (c[2, 1] - c[0, 1]) - (c[1, 1] - c[0, 1]) * (c[2, 0] - c[0, 0])
        for k in range(3):
            a, b = (c[k], c[(k + 1) % 3]) if area > 0 else (c[(k + 1) % 3], c[k])
            du, dv = b[0] - a[0], b[1] - a[1]
            length = np.sqrt(du * du + dv * dv)
            borders[f, k, 0], borders[f, k, 1] = -dv / length, du / length
            borders[f, k, 2] = (dv * a[0] - du * a[1]) / length
        plane[f, 0], plane[f, 1] = -n[0] / n[2], -n[1] / n[2]
        plane[f, 2] = (
            (c[0, 2] + c[1, 2] + c[2, 2])
            - plane[f, 0] * (c[0, 0] + c[1, 0] + c[2, 0])
            - plane[f, 1] * (c[0, 1] + c[1, 1] + c[2, 1])
        ) / 3.0
        plane[f, 3] = np.sqrt(plane[f, 0] ** 2 + plane[f, 1] ** 2)
        bounds[f, 0], bounds[f, 1] = min(c[0, 0], c[1, 0], c[2, 0]), min(c[0, 1], c[1, 1], c[2, 1])
        bounds[f, 2], bounds[f, 3] = max(c[0, 0], c[1, 0], c[2, 0]), max(c[0, 1], c[1, 1], c[2, 1])
        nearest[f] = max(c[0, 2], c[1, 2], c[2, 2])
    return borders, plane, bounds, nearest


@njit(cache=True)
def _list(faces, cells, thorough, slot, fill):
    """Enter the faces of each cell from the nearest on, until a face covers the cell alone.

    `slot` is (cells,): where the next entry of each goes, or without `fill`, how many there are.
    """
    borders, depth_plane, bounds, nearest = faces.borders, faces.depth_plane, faces.bounds, faces.nearest
    solid, low, size, shape = cells.solid, cells.low, cells.size, cells.shape
    for f in range(bounds.shape[0]):
        x0, x1, y0, y1 = cells_within(bounds[f, 0], bounds[f, 1], bounds[f, 2], bounds[f, 3], _BESIDE, cells)
        many = x1 > x0 or y1 > y0
        for y in range(y0, y1 + 1):
            for x in range(x0, x1 + 1):
                cell = y * shape[0] + x
                if nearest[f] < solid[cell] - 1.0:
                    continue
                left, right = low[0] + x * size - _BESIDE, low[0] + (x + 1) * size + _BESIDE
                bottom, top = low[1] + y * size - _BESIDE, low[1] + (y + 1) * size + _BESIDE
                inside, outside = True, False
                if many or not thorough:
                    for k in range(3):
                        a, b, c = borders[f, k, 0], borders[f, k, 1], borders[f, k, 2]
                        least = a * (left if a > 0 else right) + b * (bottom if b > 0 else top) + c
                        most = a * (right if a > 0 else left) + b * (top if b > 0 else bottom) + c
                        inside = inside and least > 0.0
                        outside = outside or most < -2.0 * _BESIDE
                if outside:
                    continue
                if fill:
                    cells.entry[slot[cell]] = f
                slot[cell] += 1
                if inside and not thorough:
                    a, b, c = depth_plane[f, 0], depth_plane[f, 1], depth_plane[f, 2]
                    deepest = a * (left if a > 0 else right) + b * (bottom if b > 0 else top) + c
                    solid[cell] = max(solid[cell], deepest)
