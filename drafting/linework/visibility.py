"""Which stretches of which edges are seen. Compiled and parallel, over a grid of the faces on paper."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numba import get_num_threads, njit, prange
from numba.np.ufunc.parallel import get_thread_id
from numpy.typing import NDArray

from drafting.linework import tolerances as tol
from drafting.linework.intervals import cover, next_free
from drafting.linework.scene import Edges, Faces

Floats = NDArray[np.float64]

#: Pieces of one edge that are given room at first; an edge with more is done again with the room it asked for.
ROOM = 12
#: Grid cells for each face, about; more cells are quicker to search and slower to fill.
CELLS_PER_FACE = 0.75
MOST_CELLS = 4_000_000

_COVER, _DEPTH, _GAP, _SPECK = tol.COVER, tol.DEPTH, tol.GAP, tol.SPECK
_BESIDE, _ONE_DIRECTION, _CLEARANCE = tol.BESIDE, tol.ONE_DIRECTION, tol.PROFILE_CLEARANCE


@dataclass(frozen=True, eq=False)
class Pieces:
    """Seen stretches: `ends` (n, 2, 3) of u, v, depth; `edge` (n,) the edge each is of; `profile` (n,) whether
    nothing near stands behind it."""

    ends: Floats
    edge: NDArray[np.int64]
    profile: NDArray[np.bool_]


def visible_pieces(faces: Faces, edges: Edges) -> Pieces:
    """The seen stretches of the edges, split where they pass behind a face and where their background changes."""
    if not len(edges):
        return Pieces(np.empty((0, 2, 3)), np.empty(0, np.int64), np.empty(0, bool))
    faces = _that_cover(faces)
    borders, depth_plane, reach, nearest = _prepare(faces)
    grid = _Grid.over(faces, reach)
    room = ROOM
    todo = np.arange(len(edges), dtype=np.int64)
    found: list[tuple[NDArray[np.int64], Floats, NDArray[np.bool_]]] = []
    while len(todo):
        part = edges.take(todo)
        pieces = np.zeros((len(todo), room, 2))
        against_nothing = np.zeros((len(todo), room), np.bool_)
        count = np.zeros(len(todo), np.int64)
        _trace(
            part.ends, part.plane, part.normals, part.side, part.element, part.material,
            borders, depth_plane, reach, nearest, faces.normals, faces.plane, faces.element, faces.material,
            grid.start, grid.entry, grid.low, grid.size, grid.shape,
            np.full((get_num_threads(), len(faces)), -1, np.int32),
            pieces, against_nothing, count,
        )  # fmt: skip
        fits = count <= room
        filled = np.arange(room) < np.where(fits, count, 0)[:, None]
        which = np.repeat(np.arange(len(todo)), filled.sum(axis=1))
        found.append((todo[which], pieces[filled], against_nothing[filled]))
        todo = todo[~fits]
        room = int(count.max(initial=0))
    edge = np.concatenate([f[0] for f in found])
    share = np.concatenate([f[1] for f in found])
    start, end = edges.ends[edge, 0], edges.ends[edge, 1]
    ends = start[:, None] + (end - start)[:, None] * share[:, :, None]
    return Pieces(ends, edge, np.concatenate([f[2] for f in found]))


def _that_cover(faces: Faces) -> Faces:
    """Faces that cover something on paper: not those seen edge on or thinner than rounding."""
    c = faces.corners
    side_a, side_b = c[:, 1, :2] - c[:, 0, :2], c[:, 2, :2] - c[:, 0, :2]
    area = np.abs(side_a[:, 0] * side_b[:, 1] - side_a[:, 1] * side_b[:, 0])
    longest = np.sqrt(((c - np.roll(c, 1, axis=1))[:, :, :2] ** 2).sum(axis=2).max(axis=1))
    kept = np.flatnonzero((np.abs(faces.normals[:, 2]) > tol.EDGE_ON) & (area > 1e-4 * np.maximum(longest, 1e-4)))
    return faces.take(kept, c[kept])


def _prepare(faces: Faces) -> tuple[Floats, Floats, Floats, Floats]:
    """For each face: inward border lines (n, 3, 3), its depth as a plane over u, v with its slope (n, 4), its
    bounds on paper (n, 4), and its nearest depth (n,)."""
    c = faces.corners
    side_a, side_b = c[:, 1, :2] - c[:, 0, :2], c[:, 2, :2] - c[:, 0, :2]
    turned = (side_a[:, 0] * side_b[:, 1] - side_a[:, 1] * side_b[:, 0]) < 0
    flat = np.where(turned[:, None, None], c[:, ::-1, :2], c[:, :, :2])
    borders = np.empty((len(c), 3, 3))
    for k in range(3):
        a, b = flat[:, k], flat[:, (k + 1) % 3]
        along = (b - a) / np.linalg.norm(b - a, axis=1)[:, None]
        borders[:, k, 0], borders[:, k, 1] = -along[:, 1], along[:, 0]
        borders[:, k, 2] = along[:, 1] * a[:, 0] - along[:, 0] * a[:, 1]
    n = faces.normals
    plane = np.empty((len(c), 4))
    plane[:, 0], plane[:, 1] = -n[:, 0] / n[:, 2], -n[:, 1] / n[:, 2]
    middle = c.mean(axis=1)
    plane[:, 2] = middle[:, 2] - plane[:, 0] * middle[:, 0] - plane[:, 1] * middle[:, 1]
    plane[:, 3] = np.hypot(plane[:, 0], plane[:, 1])
    bounds = np.concatenate([c[:, :, :2].min(axis=1), c[:, :, :2].max(axis=1)], axis=1)
    return borders, plane, bounds, c[:, :, 2].max(axis=1)


@dataclass(frozen=True, eq=False)
class _Grid:
    """Which faces touch which cell of the paper: cell k holds entry[start[k]:start[k + 1]]."""

    start: NDArray[np.int64]
    entry: NDArray[np.int32]
    low: Floats
    size: float
    shape: NDArray[np.int64]

    @classmethod
    def over(cls, faces: Faces, bounds: Floats) -> _Grid:
        if not len(faces):
            return cls(np.zeros(2, np.int64), np.empty(0, np.int32), np.zeros(2), 1.0, np.ones(2, np.int64))
        low = bounds[:, :2].min(axis=0) - 1.0
        extent = bounds[:, 2:].max(axis=0) + 1.0 - low
        cells = min(MOST_CELLS, max(16, int(len(faces) * CELLS_PER_FACE)))
        size = float(np.sqrt(extent[0] * extent[1] / cells))
        shape = np.maximum(1, np.ceil(extent / size)).astype(np.int64)
        counts = np.zeros(shape[0] * shape[1] + 1, np.int64)
        _fill_grid(bounds, low, size, shape, counts, np.empty(0, np.int32), False)
        start = np.concatenate([np.zeros(1, np.int64), np.cumsum(counts[:-1])])
        entry = np.empty(int(start[-1]), np.int32)
        _fill_grid(bounds, low, size, shape, start.copy(), entry, True)
        return cls(start, entry, low, size, shape)


@njit(cache=True)
def _fill_grid(bounds, low, size, shape, slot, entry, fill):
    for f in range(bounds.shape[0]):
        x0 = max(0, int((bounds[f, 0] - _BESIDE - low[0]) / size))
        x1 = min(shape[0] - 1, int((bounds[f, 2] + _BESIDE - low[0]) / size))
        y0 = max(0, int((bounds[f, 1] - _BESIDE - low[1]) / size))
        y1 = min(shape[1] - 1, int((bounds[f, 3] + _BESIDE - low[1]) / size))
        for y in range(y0, y1 + 1):
            for x in range(x0, x1 + 1):
                cell = y * shape[0] + x
                if fill:
                    entry[slot[cell]] = f
                slot[cell] += 1


@njit(cache=True)
def _inside(border, u, v, du, dv):
    """The stretch of u + t du, v + t dv, 0 <= t <= 1, within COVER of a face, as (from, to); from > to for none."""
    a, b = 0.0, 1.0
    for k in range(3):
        at_start = border[k, 0] * u + border[k, 1] * v + border[k, 2] + _COVER
        change = border[k, 0] * du + border[k, 1] * dv
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


@njit(cache=True, parallel=True)
def _trace(
    ends, edge_plane, edge_normals, edge_side, edge_element, edge_material,
    borders, depth_plane, bounds, nearest, normals, plane, element, material,
    start, entry, low, size, shape, met, pieces, against_nothing, count,
):  # fmt: skip
    """Fill `pieces`, `against_nothing` and `count` for every edge; a count above the room means: ask again."""
    for e in prange(ends.shape[0]):
        u, v, d = ends[e, 0, 0], ends[e, 0, 1], ends[e, 0, 2]
        du, dv, dd = ends[e, 1, 0] - u, ends[e, 1, 1] - v, ends[e, 1, 2] - d
        length = np.sqrt(du * du + dv * dv)
        if length < _COVER:
            continue
        deepest = min(d, d + dd)
        gap = _GAP / length
        left_u, left_v = -dv / length * _BESIDE, du / length * _BESIDE
        # The side on which the body ends, if it does: where its profile has its background.
        outer = 0
        if edge_side[e, 0] >= 0 and edge_side[e, 1] >= 0 and edge_side[e, 0] + edge_side[e, 1] > 0:
            outer = -1
        elif edge_side[e, 0] <= 0 and edge_side[e, 1] <= 0 and edge_side[e, 0] + edge_side[e, 1] < 0:
            outer = 1

        hid_low, hid_high, hidden = np.empty(16), np.empty(16), 0
        seam_low, seam_high, seams = np.empty(8), np.empty(8), 0
        back_low, back_high, backed = np.empty(8), np.empty(8), 0
        met_here = met[get_thread_id()]

        x0 = max(0, int((min(u, u + du) - _BESIDE - low[0]) / size))
        x1 = min(shape[0] - 1, int((max(u, u + du) + _BESIDE - low[0]) / size))
        y0 = max(0, int((min(v, v + dv) - _BESIDE - low[1]) / size))
        y1 = min(shape[1] - 1, int((max(v, v + dv) + _BESIDE - low[1]) / size))
        for y in range(y0, y1 + 1):
            # The columns that the edge passes in this row, and no others.
            ra, rb = x0, x1
            if abs(dv) > _COVER and y1 > y0:
                t0 = (low[1] + y * size - _BESIDE - v) / dv
                t1 = (low[1] + (y + 1) * size + _BESIDE - v) / dv
                ua = u + du * min(1.0, max(0.0, t0))
                ub = u + du * min(1.0, max(0.0, t1))
                ra = max(x0, int((min(ua, ub) - _BESIDE - low[0]) / size))
                rb = min(x1, int((max(ua, ub) + _BESIDE - low[0]) / size))
            for x in range(ra, rb + 1):
                cell = y * shape[0] + x
                for k in range(start[cell], start[cell + 1]):
                    f = entry[k]
                    if met_here[f] == e:
                        continue
                    met_here[f] = e
                    if nearest[f] < deepest - (_CLEARANCE if outer != 0 else _DEPTH):
                        continue
                    if (
                        bounds[f, 0] > max(u, u + du) + _BESIDE
                        or bounds[f, 2] < min(u, u + du) - _BESIDE
                        or bounds[f, 1] > max(v, v + dv) + _BESIDE
                        or bounds[f, 3] < min(v, v + dv) - _BESIDE
                    ):
                        continue
                    # How much nearer the face is than the edge, along the edge.
                    ahead = depth_plane[f, 0] * u + depth_plane[f, 1] * v + depth_plane[f, 2] - d
                    ahead_change = depth_plane[f, 0] * du + depth_plane[f, 1] * dv - dd
                    slope = depth_plane[f, 3]
                    own = plane[f] == edge_plane[e, 0] or plane[f] == edge_plane[e, 1]
                    if not own:
                        a, b = _inside(borders[f], u, v, du, dv)
                        if a <= b:
                            a, b = _above(a, b, ahead, ahead_change, _DEPTH + 2.0 * slope * _COVER)
                            if a <= b and (b - a) * length > 1e-6:
                                hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, a, b, gap)
                                if hidden == 1 and hid_low[0] <= gap and hid_high[0] >= 1.0 - gap:
                                    break
                        # A face that carries on the plane of a seen face of this edge makes it a seam.
                        if material[f] == edge_material[e] or element[f] == edge_element[e]:
                            for j in range(2):
                                s = edge_side[e, j]
                                if s == 0:
                                    continue
                                cosine = (
                                    normals[f, 0] * edge_normals[e, j, 0]
                                    + normals[f, 1] * edge_normals[e, j, 1]
                                    + normals[f, 2] * edge_normals[e, j, 2]
                                )
                                if cosine < 1.0 - _ONE_DIRECTION:
                                    continue
                                if abs(ahead + 0.5 * ahead_change) > _DEPTH + 2.0 * slope * _COVER:
                                    continue
                                a, b = _inside(borders[f], u - s * left_u, v - s * left_v, du, dv)
                                if a <= b:
                                    seam_low, seam_high, seams = cover(seam_low, seam_high, seams, a, b, gap)
                    if outer != 0:
                        ou, ov = outer * left_u, outer * left_v
                        a, b = _inside(borders[f], u + ou, v + ov, du, dv)
                        if a <= b:
                            beside = ahead + depth_plane[f, 0] * ou + depth_plane[f, 1] * ov
                            a, b = _above(a, b, beside, ahead_change, -_CLEARANCE)
                            if a <= b:
                                back_low, back_high, backed = cover(back_low, back_high, backed, a, b, gap)
                if hidden == 1 and hid_low[0] <= gap and hid_high[0] >= 1.0 - gap:
                    break
            if hidden == 1 and hid_low[0] <= gap and hid_high[0] >= 1.0 - gap:
                break

        for k in range(seams):
            hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, seam_low[k], seam_high[k], gap)
        found = 0
        at = 0.0
        speck = min(_SPECK / length, 0.5)
        while at < 1.0:
            a, b = next_free(hid_low, hid_high, hidden, at, 1.0)
            if a >= 1.0:
                break
            at = b
            if b - a < speck:
                continue
            # Split what is seen by its background.
            inner = a
            while inner < b:
                p, q = next_free(back_low, back_high, backed, inner, b) if outer != 0 else (b, b)
                while q < b and q - p < speck:
                    p, q = next_free(back_low, back_high, backed, q, b)
                if q - p < speck:
                    p, q = b, b
                if p > inner:
                    if found < pieces.shape[1]:
                        pieces[e, found, 0], pieces[e, found, 1] = inner, p
                        against_nothing[e, found] = False
                    found += 1
                if q > p:
                    if found < pieces.shape[1]:
                        pieces[e, found, 0], pieces[e, found, 1] = p, q
                        against_nothing[e, found] = True
                    found += 1
                inner = q
        count[e] = found
