"""What lies before and behind one edge of a drawing, found in the cells that it passes. Compiled."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numba import njit
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.grid import Floats, cell_of, cells_passed, columns
from drafting.linework.intervals import cover

_COVER, _DEPTH, _GAP, _BESIDE = tol.COVER, tol.DEPTH, tol.GAP, tol.BESIDE
_BACKGROUND, _ONE_DIRECTION, _GRAZING = tol.BACKGROUND, tol.ONE_DIRECTION, tol.GRAZING


class EdgeOnPaper(NamedTuple):
    """An edge from (u, v) at a depth, by (du, dv) and a change of depth; mm."""

    u: float
    v: float
    du: float
    dv: float
    depth: float
    depth_change: float


class OwnFaces(NamedTuple):
    """What is known of the two faces of an edge: their planes (2,), normals (2, 3) and sides on paper (2,),
    and the element and material that they are of."""

    planes: NDArray[np.integer]
    normals: Floats
    side: NDArray[np.integer]
    element: int
    material: int


class Background(NamedTuple):
    """What counts as lying behind an edge: within `clearance` mm of it, on its side `outer` (1 left, -1
    right); with an element given as `only`, faces of that element that are seen nearly edge on."""

    outer: int
    clearance: float
    only: int


@njit(cache=True)
def _inside(borders, f, u, v, du, dv):
    """The stretch of u + t du, v + t dv, 0 <= t <= 1, within COVER of face f, as (from, to); from > to for
    none."""
    a, b = 0.0, 1.0
    for k in range(3):
        at_start = borders[f, k, 0] * u + borders[f, k, 1] * v + borders[f, k, 2] + _COVER
        change = borders[f, k, 0] * du + borders[f, k, 1] * dv
        if at_start < 0.0 and at_start + change < 0.0:
            return 1.0, 0.0
        if at_start < 0.0:
            a = max(a, -at_start / change)
        elif at_start + change < 0.0:
            b = min(b, -at_start / change)
    return a, b


@njit(cache=True)
def _above(a, b, value, change, least):
    """What of the stretch a..b has value + t change > least."""
    if value + a * change <= least and value + b * change <= least:
        return 1.0, 0.0
    if value + a * change <= least:
        a = (least - value) / change
    elif value + b * change <= least:
        b = (least - value) / change
    return a, b


@njit(cache=True)
def behind_all(edge, grid):
    """Whether an edge lies deeper than what covers all of its cells."""
    solid, width = grid.solid, grid.shape[0]
    highest = max(edge.depth, edge.depth + edge.depth_change)
    x0, x1, y0, y1 = cells_passed(edge, _BESIDE, grid)
    for y in range(y0, y1 + 1):
        ra, rb = columns(y, edge, x0, x1, _BESIDE, grid)
        for x in range(ra, rb + 1):
            if solid[y * width + x] < highest + 1.0:
                return False
    return True


@njit(cache=True)
def behind_one(edge, own_planes, faces, grid):
    """Whether a single face hides all of an edge; such a face is listed where the edge has its middle."""
    borders, depth_plane, nearest, plane = faces.borders, faces.depth_plane, faces.nearest, faces.plane
    start, entry, low, size, shape = grid.start, grid.entry, grid.low, grid.size, grid.shape
    u, v, du, dv, d, dd = edge
    x = cell_of(u + 0.5 * du, low[0], size, shape[0])
    y = cell_of(v + 0.5 * dv, low[1], size, shape[1])
    least = max(d, d + dd) + _DEPTH
    for k in range(start[y * shape[0] + x], start[y * shape[0] + x + 1]):
        f = entry[k]
        if nearest[f] < least:
            return False  # and so are all that follow
        if plane[f] == own_planes[0] or plane[f] == own_planes[1]:
            continue
        clear = _DEPTH + 2.0 * depth_plane[f, 3] * _COVER
        ahead = depth_plane[f, 0] * u + depth_plane[f, 1] * v + depth_plane[f, 2] - d
        if min(ahead, ahead + depth_plane[f, 0] * du + depth_plane[f, 1] * dv - dd) <= clear:
            continue
        within = True
        for i in range(3):
            at_start = borders[f, i, 0] * u + borders[f, i, 1] * v + borders[f, i, 2] + _COVER
            within = within and min(at_start, at_start + borders[f, i, 0] * du + borders[f, i, 1] * dv) >= 0.0
        if within:
            return True
    return False


@njit(cache=True)
def _far_beside(edge, flat, bounds, f, left_u, left_v, margin):
    """Whether face f lies wholly to one side of an edge."""
    u, v, du, dv = edge.u, edge.v, edge.du, edge.dv
    if (
        bounds[f, 0] > max(u, u + du) + margin
        or bounds[f, 2] < min(u, u + du) - margin
        or bounds[f, 1] > max(v, v + dv) + margin
        or bounds[f, 3] < min(v, v + dv) - margin
    ):
        return True
    a = left_u * (flat[f, 0, 0] - u) + left_v * (flat[f, 0, 1] - v)
    b = left_u * (flat[f, 1, 0] - u) + left_v * (flat[f, 1, 1] - v)
    c = left_u * (flat[f, 2, 0] - u) + left_v * (flat[f, 2, 1] - v)
    return min(a, b, c) > margin or max(a, b, c) < -margin


@njit(cache=True)
def hidden_and_seams(edge, own, faces, grid, met, mark, thorough):
    """Where an edge is covered by a face, and where a face of its own material carries on one of its faces.

    `met` is (faces,): the faces that have been looked at hold `mark`, a number for this search alone.
    Unless it is `thorough`, the search ends where the whole edge is covered.
    Returns the two sets of stretches, (low, high, count) each.
    """
    flat, borders, depth_plane, bounds = faces.flat, faces.borders, faces.depth_plane, faces.bounds
    nearest, normals, plane = faces.nearest, faces.normals, faces.plane
    element, material = faces.element, faces.material
    start, entry, width = grid.start, grid.entry, grid.shape[0]
    u, v, du, dv, d, dd = edge
    length = np.sqrt(du * du + dv * dv)
    gap = _GAP / length
    left_u, left_v = -dv / length, du / length
    least = min(d, d + dd) - _DEPTH
    hid_low, hid_high, hidden = np.empty(16), np.empty(16), 0
    seam_low, seam_high, seams = np.empty(8), np.empty(8), 0
    x0, x1, y0, y1 = cells_passed(edge, _BESIDE, grid)
    for y in range(y0, y1 + 1):
        ra, rb = columns(y, edge, x0, x1, _BESIDE, grid)
        for x in range(ra, rb + 1):
            cell = y * width + x
            for k in range(start[cell], start[cell + 1]):
                f = entry[k]
                if nearest[f] < least:
                    break  # and so are all that follow
                if met[f] == mark:
                    continue
                met[f] = mark
                if plane[f] == own.planes[0] or plane[f] == own.planes[1]:
                    continue
                if _far_beside(edge, flat, bounds, f, left_u, left_v, _BESIDE):
                    continue
                # How much nearer the face is than the edge, along the edge.
                ahead = depth_plane[f, 0] * u + depth_plane[f, 1] * v + depth_plane[f, 2] - d
                ahead_change = depth_plane[f, 0] * du + depth_plane[f, 1] * dv - dd
                clear = _DEPTH + 2.0 * depth_plane[f, 3] * _COVER
                if max(ahead, ahead + ahead_change) > clear:
                    a, b = _inside(borders, f, u, v, du, dv)
                    if a <= b:
                        a, b = _above(a, b, ahead, ahead_change, clear)
                        if a <= b and (b - a) * length > 1e-6:
                            hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, a, b, gap)
                            if (
                                not thorough
                                and hidden == 1
                                and hid_low[0] <= gap
                                and hid_high[0] >= 1.0 - gap
                            ):
                                return hid_low, hid_high, hidden, seam_low, seam_high, seams
                # A face that carries on the plane of a seen face of this edge makes it a seam.
                if abs(ahead + 0.5 * ahead_change) > clear or (
                    material[f] != own.material and element[f] != own.element
                ):
                    continue
                for j in range(2):
                    s = own.side[j]
                    if s == 0:
                        continue
                    cosine = (
                        normals[f, 0] * own.normals[j, 0]
                        + normals[f, 1] * own.normals[j, 1]
                        + normals[f, 2] * own.normals[j, 2]
                    )
                    if cosine < 1.0 - _ONE_DIRECTION:
                        continue
                    a, b = _inside(borders, f, u - s * left_u * _BESIDE, v - s * left_v * _BESIDE, du, dv)
                    if a <= b:
                        seam_low, seam_high, seams = cover(seam_low, seam_high, seams, a, b, gap)
    return hid_low, hid_high, hidden, seam_low, seam_high, seams


@njit(cache=True)
def backed(edge, background, faces, grid, met, mark):
    """Where something lies near behind an edge, on the side on which its body ends: (low, high, count).

    `met` and `mark` are as for hidden_and_seams.
    """
    flat, borders, depth_plane, bounds = faces.flat, faces.borders, faces.depth_plane, faces.bounds
    nearest, normals, element = faces.nearest, faces.normals, faces.element
    start, entry, width = grid.start, grid.entry, grid.shape[0]
    u, v, du, dv, d, dd = edge
    length = np.sqrt(du * du + dv * dv)
    gap = _GAP / length
    left_u, left_v = -dv / length, du / length
    outer, clearance, only = background.outer, background.clearance, background.only
    beside = EdgeOnPaper(u + outer * left_u * _BACKGROUND, v + outer * left_v * _BACKGROUND, du, dv, d, dd)
    least = min(d, d + dd) - clearance
    back_low, back_high, count = np.empty(8), np.empty(8), 0
    x0, x1, y0, y1 = cells_passed(beside, _BESIDE, grid)
    for y in range(y0, y1 + 1):
        ra, rb = columns(y, beside, x0, x1, _BESIDE, grid)
        for x in range(ra, rb + 1):
            cell = y * width + x
            for k in range(start[cell], start[cell + 1]):
                f = entry[k]
                if nearest[f] < least:
                    break  # and so are all that follow
                if met[f] == mark:
                    continue
                met[f] = mark
                if only >= 0 and (element[f] != only or abs(normals[f, 2]) > _GRAZING):
                    continue
                if _far_beside(beside, flat, bounds, f, left_u, left_v, _BESIDE):
                    continue
                ahead = depth_plane[f, 0] * beside.u + depth_plane[f, 1] * beside.v + depth_plane[f, 2] - d
                ahead_change = depth_plane[f, 0] * du + depth_plane[f, 1] * dv - dd
                a, b = _inside(borders, f, beside.u, beside.v, du, dv)
                if a <= b:
                    a, b = _above(a, b, ahead, ahead_change, -clearance)
                    if a <= b:
                        back_low, back_high, count = cover(back_low, back_high, count, a, b, gap)
                        if count == 1 and back_low[0] <= gap and back_high[0] >= 1.0 - gap:
                            return back_low, back_high, count
    return back_low, back_high, count
