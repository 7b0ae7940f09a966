"""Which face is seen at each place, and from which places a light is seen. Compiled."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray

from drafting.linework.covering import Covering, CoveringFaces
from drafting.linework.grid import cell_of

Floats = NDArray[np.float64]
#: How places lie over a window, row by row: from where to where (0 to 1, downward), in how many rows and
#: columns.
Spread = tuple[float, float, int, int]
#: Of places in rows and columns: u and v of the first, and by how much they grow with each column and row.
Frame = tuple[float, float, float, float, float, float]

#: A face wins over another by more than this; mm. Of two in one plane the same one wins everywhere.
TIE = 0.05
#: A place on the border of two faces belongs to both; mm.
ON_BORDER = 1e-6
#: Faces are laid over so many bands of rows beside each other; and over places this near to them, of which
#: their borders then decide.
BANDS, NEAR = 4, 1e-3
#: Light is looked for from so far before a face, so that no face shades itself; mm.
BEFORE = 1.0
#: What faces a light less than this (cosine) lies along it and is not lit.
FACING = 1e-4
#: Points lie alike where their normals are this near (cosine) and they are this near to one plane; mm.
ALIKE, IN_PLANE = 0.99, 20.0


class Seen(NamedTuple):
    """What is seen at n places.

    Attributes:
        face: (n,) the number of a face, -1 for none.
        depth: (n,) its pictured depth, -inf where there is none.
        at: (n, 3) where along the axes of the camera.
        normal: (n, 3) turned to the viewer; zero where there is nothing.
    """

    face: NDArray[np.int32]
    depth: Floats
    at: Floats
    normal: Floats

    def select(self, which: NDArray[np.int64]) -> Seen:
        """Some of the places."""
        return Seen(self.face[which], self.depth[which], self.at[which], self.normal[which])


def look(
    faces: CoveringFaces, frame: Frame, columns: int, rows: tuple[int, int], distance: float, normals: Floats
) -> Seen:
    """What is seen at each of the places of some rows.

    Args:
        faces: as they are pictured, the nearest first; what `plane` says of each is its number.
        rows: from which to before which.
        distance: from target to eye; infinite for a parallel projection.
        normals: (faces, 3) of all faces as they are.
    """
    count = columns * (rows[1] - rows[0])
    seen = Seen(np.empty(count, np.int32), np.empty(count), np.empty((count, 3)), np.zeros((count, 3)))
    # What is written by several threads is given by itself: in a tuple they would write to copies.
    _look(faces, frame, columns, rows[0], distance, normals, *seen)
    return seen


def gather(
    covering: Covering, at: Floats, normal: Floats, axes: Floats, light: float, total: Floats, whole: Floats
) -> None:
    """Add the light from one way to points (n, 3): to `whole` where they face it, by how much they do, and to
    `total` where nothing stands before it.

    Args:
        covering: what may, as the light sees it.
        axes: (3, 3) those of the light, the last its way.
    """
    _gather(covering.faces, covering.grid, at, normal, axes, light, total, whole)


def taken_nearby(
    at: Floats,
    normal: Floats,
    spread: Spread,
    grid_face: NDArray[np.int32],
    grid_at: Floats,
    grid_normal: Floats,
    grid_value: Floats,
    rows: int,
    columns: int,
) -> Floats:
    """A value that is known on a grid of rows and columns, at n points between: from the four about each, as
    far as they lie alike.

    Args:
        at, normal: (n, 3) where the points lie, and their normals.
        spread: how the points lie over what the grid lies over.
        grid_face: (rows * columns,) -1 where there is nothing.
    """
    found = np.empty(len(at))
    _taken(at, normal, spread, grid_face, grid_at, grid_normal, grid_value, rows, columns, found)
    return found


def smoothed(
    face: NDArray[np.int32], at: Floats, normal: Floats, value: Floats, rows: int, columns: int, reach: int
) -> Floats:
    """A value on a grid of rows and columns, each the mean of those near it that lie alike."""
    found = np.empty(len(value))
    _smoothed(face, at, normal, value, rows, columns, reach, found)
    return found


@njit(cache=True, parallel=True)
def _smoothed(face, at, normal, value, rows, columns, reach, found):
    for p in prange(face.shape[0]):
        found[p] = value[p]
        if face[p] < 0:
            continue
        row, column = p // columns, p % columns
        total, count = 0.0, 0
        for r in range(max(0, row - reach), min(rows, row + reach + 1)):
            for c in range(max(0, column - reach), min(columns, column + reach + 1)):
                g = r * columns + c
                if face[g] < 0:
                    continue
                cosine, away = 0.0, 0.0
                for k in range(3):
                    cosine += normal[g, k] * normal[p, k]
                    away += (at[g, k] - at[p, k]) * normal[p, k]
                if cosine > ALIKE and abs(away) < IN_PLANE:
                    total += value[g]
                    count += 1
        found[p] = total / count


@njit(cache=True, parallel=True)
def _taken(at, normal, spread, grid_face, grid_at, grid_normal, grid_value, rows, columns, found):
    top, bottom, down_all, across = spread
    for p in prange(at.shape[0]):
        if normal[p, 0] == 0.0 and normal[p, 1] == 0.0 and normal[p, 2] == 0.0:
            found[p] = 1.0
            continue
        down_at = (top + (p // across + 0.5) / down_all * (bottom - top)) * rows - 0.5
        right_at = (p % across + 0.5) / across * columns - 0.5
        row, column = np.floor(down_at), np.floor(right_at)
        total, whole, anyhow, count = 0.0, 0.0, 0.0, 0.0
        for down in range(2):
            for right in range(2):
                r = min(rows - 1, max(0, int(row) + down))
                c = min(columns - 1, max(0, int(column) + right))
                g = r * columns + c
                if grid_face[g] < 0:
                    continue
                share = max(1e-3, 1.0 - abs(down_at - row - down)) * max(
                    1e-3, 1.0 - abs(right_at - column - right)
                )
                anyhow += share * grid_value[g]
                count += share
                cosine, away = 0.0, 0.0
                for k in range(3):
                    cosine += grid_normal[g, k] * normal[p, k]
                    away += (grid_at[g, k] - at[p, k]) * normal[p, k]
                if cosine > ALIKE and abs(away) < IN_PLANE:
                    total += share * grid_value[g]
                    whole += share
        if whole > 0.0:
            found[p] = total / whole
        elif count > 0.0:
            found[p] = anyhow / count
        else:
            found[p] = 1.0


@njit(cache=True, parallel=True)
def _look(faces, frame, columns, first, distance, normals, face, depth, place, normal):
    """Lay the faces over the places, the nearest first, and say where each place then is."""
    count = face.shape[0]
    rows = count // columns
    which = np.full(count, -1, np.int32)
    boxes = np.empty((faces.flat.shape[0], 4), np.int32)
    for f in prange(boxes.shape[0]):
        _box(faces.flat[f], frame, columns, first, rows, boxes[f])
    bands = min(BANDS, rows)
    for band in prange(bands):
        top, end = band * rows // bands, (band + 1) * rows // bands
        _lay(faces, boxes, frame, columns, first, top, end, depth, which)
    for p in prange(count):
        row, column = first + p // columns, p % columns
        u = frame[0] + column * frame[2] + row * frame[4]
        v = frame[1] + column * frame[3] + row * frame[5]
        if which[p] < 0:
            face[p] = -1
            place[p, 0], place[p, 1], place[p, 2] = u, v, 0.0
            continue
        best, number = depth[p], faces.plane[which[p]]
        face[p] = number
        # As Camera.pictured maps points, the other way.
        share = distance / (distance + best) if np.isfinite(distance) else 1.0
        place[p, 0], place[p, 1], place[p, 2] = u * share, v * share, best * share
        n = normals[number]
        toward = n[2]
        if np.isfinite(distance):
            toward = n[2] * (distance - best * share) - (n[0] * u + n[1] * v) * share
        for k in range(3):
            normal[p, k] = n[k] if toward >= 0.0 else -n[k]


@njit(cache=True)
def _box(flat, frame, columns, first, rows, box):
    """Write which columns and rows a face (3, 2) reaches: from, to, from, to; rows counted from `first`."""
    per = 1.0 / (frame[2] * frame[5] - frame[3] * frame[4])
    left, right, upper, lower = np.inf, -np.inf, np.inf, -np.inf
    for k in range(3):
        u, v = flat[k, 0] - frame[0], flat[k, 1] - frame[1]
        column, row = (u * frame[5] - v * frame[4]) * per, (v * frame[2] - u * frame[3]) * per - first
        left, right = min(left, column), max(right, column)
        upper, lower = min(upper, row), max(lower, row)
    # A place on the border of a face belongs to it: what is near is asked, and decided by the borders.
    box[0], box[1] = np.ceil(max(left - NEAR, 0.0)), np.floor(min(right + NEAR, columns - 1.0))
    box[2], box[3] = np.ceil(max(upper - NEAR, 0.0)), np.floor(min(lower + NEAR, rows - 1.0))
    if right < 0.0 or left > columns or lower < 0.0 or upper > rows or box[0] > box[1]:
        box[2], box[3] = 0, -1


@njit(cache=True)
def _lay(faces, boxes, frame, columns, first, top, end, depth, which):
    """Write the depth of what is nearest, and which face it is, at the places of rows `top` to before `end`,
    counted from `first`."""
    borders, plane, near = faces.borders, faces.depth_plane, faces.nearest
    depth[top * columns : end * columns] = -np.inf
    for f in range(boxes.shape[0]):
        for row in range(max(boxes[f, 2], top), min(boxes[f, 3], end - 1) + 1):
            for column in range(boxes[f, 0], boxes[f, 1] + 1):
                p = row * columns + column
                if depth[p] >= near[f]:
                    continue
                u = frame[0] + column * frame[2] + (first + row) * frame[4]
                v = frame[1] + column * frame[3] + (first + row) * frame[5]
                if (
                    borders[f, 0, 0] * u + borders[f, 0, 1] * v + borders[f, 0, 2] >= -ON_BORDER
                    and borders[f, 1, 0] * u + borders[f, 1, 1] * v + borders[f, 1, 2] >= -ON_BORDER
                    and borders[f, 2, 0] * u + borders[f, 2, 1] * v + borders[f, 2, 2] >= -ON_BORDER
                ):
                    at = plane[f, 0] * u + plane[f, 1] * v + plane[f, 2]
                    if at > depth[p] + TIE or which[p] < 0:
                        depth[p], which[p] = at, f


@njit(cache=True, parallel=True)
def _gather(faces, cells, at, normal, axes, light, total, whole):
    borders, plane, near = faces.borders, faces.depth_plane, faces.nearest
    start, entry, low, size, shape = cells.start, cells.entry, cells.low, cells.size, cells.shape
    for p in prange(at.shape[0]):
        facing = normal[p, 0] * axes[2, 0] + normal[p, 1] * axes[2, 1] + normal[p, 2] * axes[2, 2]
        if facing <= FACING:
            continue
        whole[p] += light * facing
        x, y, z = (
            at[p, 0] + BEFORE * normal[p, 0],
            at[p, 1] + BEFORE * normal[p, 1],
            at[p, 2] + BEFORE * normal[p, 2],
        )
        u = x * axes[0, 0] + y * axes[0, 1] + z * axes[0, 2]
        v = x * axes[1, 0] + y * axes[1, 1] + z * axes[1, 2]
        height = x * axes[2, 0] + y * axes[2, 1] + z * axes[2, 2]
        cell = cell_of(v, low[1], size, shape[1]) * shape[0] + cell_of(u, low[0], size, shape[0])
        free = True
        for e in range(start[cell], start[cell + 1]):
            f = entry[e]
            if near[f] <= height:
                break
            if (
                borders[f, 0, 0] * u + borders[f, 0, 1] * v + borders[f, 0, 2] >= -ON_BORDER
                and borders[f, 1, 0] * u + borders[f, 1, 1] * v + borders[f, 1, 2] >= -ON_BORDER
                and borders[f, 2, 0] * u + borders[f, 2, 1] * v + borders[f, 2, 2] >= -ON_BORDER
                and plane[f, 0] * u + plane[f, 1] * v + plane[f, 2] > height
            ):
                free = False
                break
        if free:
            total[p] += light * facing
