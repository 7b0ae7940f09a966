"""Which stretches of which edges are seen, and against what. Compiled and parallel."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numba import get_num_threads, njit, prange
from numba.np.ufunc.parallel import get_thread_id
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.covering import Covering
from drafting.linework.grid import cell_of, columns
from drafting.linework.intervals import cover, next_free
from drafting.linework.model import EDGE, HIDDEN, PROFILE, SEAM
from drafting.linework.scene import Edges, Faces

Floats = NDArray[np.float64]

#: Pieces of one edge that are given room at first; an edge with more is done again with the room it asked
#: for.
ROOM = 12

_COVER, _DEPTH, _GAP, _SPECK = tol.COVER, tol.DEPTH, tol.GAP, tol.SPECK
_BESIDE, _BACKGROUND, _ONE_DIRECTION = tol.BESIDE, tol.BACKGROUND, tol.ONE_DIRECTION
_GRAZING, _CARRIES_ON = tol.GRAZING, tol.CARRIES_ON
_EDGE, _PROFILE, _SEAM, _HIDDEN = EDGE, PROFILE, SEAM, HIDDEN


@dataclass(frozen=True, eq=False)
class Pieces:
    """Stretches of edges: `ends` (n, 2, 3) of u, v, depth; `edge` (n,) the edge each is of; `role` (n,)."""

    ends: Floats
    edge: NDArray[np.int64]
    role: NDArray[np.int8]


class TracedEdges(NamedTuple):
    """m edges as the kernel takes them: ends (m, 2, 3) along the axes of the camera, mm; the two faces of
    each by plane (m, 2), normals (m, 2, 3) and side on paper (m, 2); element, material, smooth, outer and
    clearance (m,)."""

    ends: Floats
    planes: NDArray[np.integer]
    normals: Floats
    side: NDArray[np.integer]
    element: NDArray[np.integer]
    material: NDArray[np.integer]
    smooth: NDArray[np.bool_]
    outer: NDArray[np.int8]
    clearance: Floats


class Wanted(NamedTuple):
    """What is drawn beside what is seen."""

    seams: bool
    hidden: bool


class Stretches(NamedTuple):
    """Room for the stretches of m edges, r each: pieces (m, r, 2) as shares of the edge, role (m, r), and how
    many were found (m,)."""

    pieces: Floats
    role: NDArray[np.int8]
    found: NDArray[np.int64]


def trace(faces: Faces, edges: Edges, clearance: Floats, seams: bool = False, hidden: bool = False) -> Pieces:
    """The stretches of the edges, split where they pass behind a face and where their background changes.

    Args:
        clearance: (number of edges,) an edge is a profile where nothing lies so near behind it.
        seams, hidden: whether seams and hidden stretches are wanted too.
    """
    if not len(edges):
        return Pieces(np.empty((0, 2, 3)), np.empty(0, np.int64), np.empty(0, np.int8))
    covering = Covering.of(faces, thorough=seams or hidden)
    outer = _outer_sides(edges)
    room = ROOM
    # Each thread takes a run of them: dealt out like cards, so that the long ones are shared.
    todo = np.argsort(np.arange(len(edges)) % get_num_threads(), kind="stable").astype(np.int64)
    found: list[tuple[NDArray[np.int64], Floats, NDArray[np.int8]]] = []
    while len(todo):
        part = edges.select(todo)
        pieces = np.zeros((len(todo), room, 2))
        role = np.zeros((len(todo), room), np.int8)
        count = np.zeros(len(todo), np.int64)
        traced = TracedEdges(
            part.ends, part.plane, part.normals, part.side, part.element, part.material, part.smooth,
            outer[todo], clearance[todo],
        )  # fmt: skip
        met = np.full((get_num_threads(), len(covering.faces.flat)), -1, np.int32)
        wanted = Wanted(seams, hidden)
        _trace(traced, covering.faces, covering.grid, met, wanted, Stretches(pieces, role, count))
        fits = count <= room
        filled = np.arange(room) < np.where(fits, count, 0)[:, None]
        which = np.repeat(np.arange(len(todo)), filled.sum(axis=1))
        found.append((todo[which], pieces[filled], role[filled]))
        todo = todo[~fits]
        room = int(count.max(initial=0))
    edge = np.concatenate([f[0] for f in found])
    share = np.concatenate([f[1] for f in found])
    start, end = edges.ends[edge, 0], edges.ends[edge, 1]
    ends = start[:, None] + (end - start)[:, None] * share[:, :, None]
    return Pieces(ends, edge, np.concatenate([f[2] for f in found]))


def _outer_sides(edges: Edges) -> NDArray[np.int8]:
    """On which side of each edge its body ends (1 left, -1 right), 0 where it does not: there a profile may
    be."""
    side = edges.side.astype(np.int8)
    left = (side >= 0).all(axis=1) & (side.sum(axis=1) > 0)
    right = (side <= 0).all(axis=1) & (side.sum(axis=1) < 0)
    return np.where(edges.bar, 0, np.where(left, -1, np.where(right, 1, 0))).astype(np.int8)


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
def _emit(found, start, end, kind, pieces, role):
    """Enter a stretch where there is room for it; the count goes on in any case."""
    if found < pieces.shape[0]:
        pieces[found, 0], pieces[found, 1] = start, end
        role[found] = kind
    return found + 1


@njit(cache=True)
def _cells(edge, margin, grid):
    """The columns and rows of cells, (x0, x1, y0, y1), that an edge passes within a margin."""
    low, size, shape = grid.low, grid.size, grid.shape
    u, v, du, dv = edge
    return (
        cell_of(min(u, u + du) - margin, low[0], size, shape[0]),
        cell_of(max(u, u + du) + margin, low[0], size, shape[0]),
        cell_of(min(v, v + dv) - margin, low[1], size, shape[1]),
        cell_of(max(v, v + dv) + margin, low[1], size, shape[1]),
    )


@njit(cache=True)
def _behind_all(edge, highest, grid):
    """Whether an edge lies deeper than what covers all of its cells."""
    solid, low, size, shape = grid.solid, grid.low, grid.size, grid.shape
    u, v, du, dv = edge
    x0, x1, y0, y1 = _cells(edge, _BESIDE, grid)
    for y in range(y0, y1 + 1):
        ra, rb = columns(y, u, v, du, dv, x0, x1, low, size, _BESIDE)
        for x in range(ra, rb + 1):
            if solid[y * shape[0] + x] < highest + 1.0:
                return False
    return True


@njit(cache=True)
def _behind_one(edge, d, dd, own_planes, faces, grid):
    """Whether a single face hides all of an edge; such a face is listed where the edge has its middle."""
    borders, depth_plane, nearest, plane = faces.borders, faces.depth_plane, faces.nearest, faces.plane
    start, entry, low, size, shape = grid.start, grid.entry, grid.low, grid.size, grid.shape
    u, v, du, dv = edge
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
    u, v, du, dv = edge
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
def _hidden_and_seams(
    edge, d, dd, own_planes, own_normals, side, own, material_of, faces, grid, met, mark, thorough
):
    """Where an edge is covered by a face, and where a face of its own material carries on one of its faces.

    Returns the two sets of stretches, (low, high, count) each.
    """
    flat, borders, depth_plane, bounds = faces.flat, faces.borders, faces.depth_plane, faces.bounds
    nearest, normals, plane = faces.nearest, faces.normals, faces.plane
    element, material = faces.element, faces.material
    start, entry, low, size, shape = grid.start, grid.entry, grid.low, grid.size, grid.shape
    u, v, du, dv = edge
    length = np.sqrt(du * du + dv * dv)
    gap = _GAP / length
    left_u, left_v = -dv / length, du / length
    least = min(d, d + dd) - _DEPTH
    hid_low, hid_high, hidden = np.empty(16), np.empty(16), 0
    seam_low, seam_high, seams = np.empty(8), np.empty(8), 0
    x0, x1, y0, y1 = _cells(edge, _BESIDE, grid)
    for y in range(y0, y1 + 1):
        ra, rb = columns(y, u, v, du, dv, x0, x1, low, size, _BESIDE)
        for x in range(ra, rb + 1):
            cell = y * shape[0] + x
            for k in range(start[cell], start[cell + 1]):
                f = entry[k]
                if nearest[f] < least:
                    break  # and so are all that follow
                if met[f] == mark:
                    continue
                met[f] = mark
                if plane[f] == own_planes[0] or plane[f] == own_planes[1]:
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
                    material[f] != material_of and element[f] != own
                ):
                    continue
                for j in range(2):
                    s = side[j]
                    if s == 0:
                        continue
                    cosine = (
                        normals[f, 0] * own_normals[j, 0]
                        + normals[f, 1] * own_normals[j, 1]
                        + normals[f, 2] * own_normals[j, 2]
                    )
                    if cosine < 1.0 - _ONE_DIRECTION:
                        continue
                    a, b = _inside(borders, f, u - s * left_u * _BESIDE, v - s * left_v * _BESIDE, du, dv)
                    if a <= b:
                        seam_low, seam_high, seams = cover(seam_low, seam_high, seams, a, b, gap)
    return hid_low, hid_high, hidden, seam_low, seam_high, seams


@njit(cache=True)
def _backed(edge, d, dd, outer, clearance, only, faces, grid, met, mark):
    """Where something lies near behind an edge, on the side on which its body ends: (low, high, count).

    With an element given as `only`, what counts is a face of it that is seen nearly edge on.
    """
    flat, borders, depth_plane, bounds = faces.flat, faces.borders, faces.depth_plane, faces.bounds
    nearest, normals, element = faces.nearest, faces.normals, faces.element
    start, entry, low, size, shape = grid.start, grid.entry, grid.low, grid.size, grid.shape
    u, v, du, dv = edge
    length = np.sqrt(du * du + dv * dv)
    gap = _GAP / length
    left_u, left_v = -dv / length, du / length
    beside = (u + outer * left_u * _BACKGROUND, v + outer * left_v * _BACKGROUND, du, dv)
    least = min(d, d + dd) - clearance
    back_low, back_high, backed = np.empty(8), np.empty(8), 0
    x0, x1, y0, y1 = _cells(beside, _BESIDE, grid)
    for y in range(y0, y1 + 1):
        ra, rb = columns(y, beside[0], beside[1], du, dv, x0, x1, low, size, _BESIDE)
        for x in range(ra, rb + 1):
            cell = y * shape[0] + x
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
                ahead = depth_plane[f, 0] * beside[0] + depth_plane[f, 1] * beside[1] + depth_plane[f, 2] - d
                ahead_change = depth_plane[f, 0] * du + depth_plane[f, 1] * dv - dd
                a, b = _inside(borders, f, beside[0], beside[1], du, dv)
                if a <= b:
                    a, b = _above(a, b, ahead, ahead_change, -clearance)
                    if a <= b:
                        back_low, back_high, backed = cover(back_low, back_high, backed, a, b, gap)
                        if backed == 1 and back_low[0] <= gap and back_high[0] >= 1.0 - gap:
                            return back_low, back_high, backed
    return back_low, back_high, backed


@njit(cache=True)
def _without(low, high, count, off_low, off_high, off_count, speck, kind, found, pieces, role):
    """Enter what of one set of stretches another leaves free."""
    for k in range(count):
        at = low[k]
        while at < high[k]:
            a, b = next_free(off_low, off_high, off_count, at, high[k])
            if b - a >= speck:
                found = _emit(found, a, b, kind, pieces, role)
            at = max(b, at + 1e-12)
    return found


@njit(cache=True)
def _visible(start, end, back_low, back_high, backed, speck, found, pieces, role):
    """Enter a stretch that is seen, split by its background."""
    inner = start
    while inner < end:
        p, q = next_free(back_low, back_high, backed, inner, end)
        while q < end and q - p < speck:
            p, q = next_free(back_low, back_high, backed, q, end)
        if q - p < speck:
            p, q = end, end
        if p > inner:
            found = _emit(found, inner, p, _EDGE, pieces, role)
        if q > p:
            found = _emit(found, p, q, _PROFILE, pieces, role)
        inner = q
    return found


@njit(cache=True, parallel=True)
def _trace(edges, faces, grid, met, wanted, stretches):
    """Fill the stretches of every edge; a count above the room means: ask again.

    `met` is (threads, faces), by which each thread knows the faces that it has looked at for an edge.
    """
    ends, planes, normals, side = edges.ends, edges.planes, edges.normals, edges.side
    element, material, smooth = edges.element, edges.material, edges.smooth
    outer, clearance = edges.outer, edges.clearance
    want_seams, want_hidden = wanted.seams, wanted.hidden
    pieces, role, count = stretches.pieces, stretches.role, stretches.found
    thorough = want_seams or want_hidden
    for e in prange(ends.shape[0]):
        d, dd = ends[e, 0, 2], ends[e, 1, 2] - ends[e, 0, 2]
        edge = (ends[e, 0, 0], ends[e, 0, 1], ends[e, 1, 0] - ends[e, 0, 0], ends[e, 1, 1] - ends[e, 0, 1])
        length = np.sqrt(edge[2] * edge[2] + edge[3] * edge[3])
        if length < _COVER:
            continue
        # Most of what is hidden is hidden by one face: no further look is needed then.
        if not thorough and (
            _behind_all(edge, max(d, d + dd), grid) or _behind_one(edge, d, dd, planes[e], faces, grid)
        ):
            continue
        met_here = met[get_thread_id()]
        hid_low, hid_high, hidden, seam_low, seam_high, seams = _hidden_and_seams(
            edge,
            d,
            dd,
            planes[e],
            normals[e],
            side[e],
            element[e],
            material[e],
            faces,
            grid,
            met_here,
            3 * e,
            thorough,
        )
        found = 0
        gap, speck = _GAP / length, min(_SPECK / length, 0.5)
        if want_hidden:
            found = _without(
                hid_low,
                hid_high,
                hidden,
                seam_low,
                seam_high,
                seams,
                speck,
                _HIDDEN,
                found,
                pieces[e],
                role[e],
            )
        if want_seams:
            found = _without(
                seam_low, seam_high, seams, hid_low, hid_high, hidden, speck, _SEAM, found, pieces[e], role[e]
            )
        for k in range(seams):
            hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, seam_low[k], seam_high[k], gap)
        if smooth[e] and outer[e] != 0:
            low, high, carried = _backed(
                edge, d, dd, outer[e], _CARRIES_ON, element[e], faces, grid, met_here, 3 * e + 1
            )
            for k in range(carried):
                hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, low[k], high[k], gap)
        back_low, back_high, backed = np.zeros(1), np.ones(1), 1
        looked = outer[e] == 0
        at = 0.0
        while at < 1.0:
            a, b = next_free(hid_low, hid_high, hidden, at, 1.0)
            if a >= 1.0:
                break
            at = b
            if b - a < speck:
                continue
            if not looked:
                back_low, back_high, backed = _backed(
                    edge, d, dd, outer[e], clearance[e], -1, faces, grid, met_here, 3 * e + 2
                )
                looked = True
            found = _visible(a, b, back_low, back_high, backed, speck, found, pieces[e], role[e])
        count[e] = found
