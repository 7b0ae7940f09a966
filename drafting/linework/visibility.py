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
from drafting.linework.hiding import (
    Background,
    EdgeOnPaper,
    OwnFaces,
    backed,
    behind_all,
    behind_one,
    hidden_and_seams,
)
from drafting.linework.intervals import cover, next_free
from drafting.linework.model import EDGE, HIDDEN, PROFILE, SEAM
from drafting.linework.scene import Edges, Faces

Floats = NDArray[np.float64]

#: Pieces of one edge that are given room at first; an edge with more is done again with the room it asked
#: for.
ROOM = 12

_COVER, _GAP, _SPECK, _CARRIES_ON = tol.COVER, tol.GAP, tol.SPECK, tol.CARRIES_ON
_EDGE, _PROFILE, _SEAM, _HIDDEN = EDGE, PROFILE, SEAM, HIDDEN


@dataclass(frozen=True, eq=False)
class Pieces:
    """Stretches of edges: `ends` (n, 2, 3) of u, v, depth; `edge` (n,) the edge each is of; `role` (n,)."""

    ends: Floats
    edge: NDArray[np.int64]
    role: NDArray[np.int8]

    def select(self, kept: NDArray[np.bool_]) -> Pieces:
        """Those that are kept, (n,) bool."""
        return Pieces(self.ends[kept], self.edge[kept], self.role[kept])


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
    # Each thread takes a run of neighbours here; those were apart before, so that long edges are shared out.
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


class _Set(NamedTuple):
    """Stretches along an edge, kept sorted and apart: from low (the first `filled`) to high."""

    low: Floats
    high: Floats
    filled: int


class _Room(NamedTuple):
    """Of one edge: pieces (r, 2) and role (r,)."""

    pieces: Floats
    role: NDArray[np.int8]


@njit(cache=True)
def _emit(found, start, end, kind, room):
    """Enter a stretch where there is room for it; the count goes on in any case."""
    if found < room.pieces.shape[0]:
        room.pieces[found, 0], room.pieces[found, 1] = start, end
        room.role[found] = kind
    return found + 1


@njit(cache=True)
def _without(drawn, off, speck, kind, found, room):
    """Enter what of one set of stretches another leaves free."""
    for k in range(drawn.filled):
        at = drawn.low[k]
        while at < drawn.high[k]:
            a, b = next_free(off.low, off.high, off.filled, at, drawn.high[k])
            if b - a >= speck:
                found = _emit(found, a, b, kind, room)
            at = max(b, at + 1e-12)
    return found


@njit(cache=True)
def _visible(start, end, behind, speck, found, room):
    """Enter a stretch that is seen, split by its background."""
    inner = start
    while inner < end:
        p, q = next_free(behind.low, behind.high, behind.filled, inner, end)
        while q < end and q - p < speck:
            p, q = next_free(behind.low, behind.high, behind.filled, q, end)
        if q - p < speck:
            p, q = end, end
        if p > inner:
            found = _emit(found, inner, p, _EDGE, room)
        if q > p:
            found = _emit(found, p, q, _PROFILE, room)
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
        a, b = ends[e, 0], ends[e, 1]
        edge = EdgeOnPaper(a[0], a[1], b[0] - a[0], b[1] - a[1], a[2], b[2] - a[2])
        length = np.sqrt(edge.du * edge.du + edge.dv * edge.dv)
        if length < _COVER:
            continue
        # Most of what is hidden is hidden by one face: no further look is needed then.
        if not thorough and (behind_all(edge, grid) or behind_one(edge, planes[e], faces, grid)):
            continue
        met_here = met[get_thread_id()]
        own = OwnFaces(planes[e], normals[e], side[e], element[e], material[e])
        hid_low, hid_high, hidden, seam_low, seam_high, seams = hidden_and_seams(
            edge, own, faces, grid, met_here, 3 * e, thorough
        )
        found = 0
        gap, speck = _GAP / length, min(_SPECK / length, 0.5)
        room = _Room(pieces[e], role[e])
        if want_hidden:
            drawn, off = _Set(hid_low, hid_high, hidden), _Set(seam_low, seam_high, seams)
            found = _without(drawn, off, speck, _HIDDEN, found, room)
        if want_seams:
            drawn, off = _Set(seam_low, seam_high, seams), _Set(hid_low, hid_high, hidden)
            found = _without(drawn, off, speck, _SEAM, found, room)
        for k in range(seams):
            hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, seam_low[k], seam_high[k], gap)
        if smooth[e] and outer[e] != 0:
            carrying = Background(outer[e], _CARRIES_ON, element[e])
            low, high, carried = backed(edge, carrying, faces, grid, met_here, 3 * e + 1)
            for k in range(carried):
                hid_low, hid_high, hidden = cover(hid_low, hid_high, hidden, low[k], high[k], gap)
        behind = _Set(np.zeros(1), np.ones(1), 1)
        looked = outer[e] == 0
        at = 0.0
        while at < 1.0:
            start, end = next_free(hid_low, hid_high, hidden, at, 1.0)
            if start >= 1.0:
                break
            at = end
            if end - start < speck:
                continue
            if not looked:
                near = Background(outer[e], clearance[e], -1)
                back_low, back_high, count_behind = backed(edge, near, faces, grid, met_here, 3 * e + 2)
                behind = _Set(back_low, back_high, count_behind)
                looked = True
            found = _visible(start, end, behind, speck, found, room)
        count[e] = found
