"""Where bodies pass through each other: the lines that no mesh holds as an edge."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
import shapely
from numba import njit, prange
from numpy.typing import NDArray

from drafting.building.topology import Topology

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Longs = NDArray[np.int64]

#: A face must reach this far (mm) through another on both sides; less is touching, and touching makes no
#: line.
THROUGH = 0.05
#: Planes that meet at less than this (sine of their angle) run along each other: their line is nowhere in
#: particular.
RUN_ALONG = 0.02


@dataclass(frozen=True, eq=False)
class Intersections:
    """Straight pieces along which faces of two bodies cross.

    Attributes:
        ends: (m, 2, 3) model points, mm.
        faces: (m, 2) int32 the faces (of the topology) that cross there, lower first.
        angle: (m,) degrees between the planes, at most 90.
    """

    ends: Floats
    faces: Ints
    angle: Floats


def find_intersections(topology: Topology) -> Intersections:
    """All pieces along which faces of two bodies pass through each other."""
    order = np.argsort(topology.body, kind="stable").astype(np.int32)
    start = np.searchsorted(topology.body[order], np.arange(len(topology.slender) + 1))
    corners = topology.points[topology.faces]
    low, high = corners.min(axis=1), corners.max(axis=1)
    pairs = np.empty((0, 2), np.int64)
    body_low = body_high = np.empty((0, 3))
    if len(topology.slender) > 1:
        body_low = np.minimum.reduceat(low[order], start[:-1])
        body_high = np.maximum.reduceat(high[order], start[:-1])
        pairs = _near_pairs(body_low + THROUGH, body_high - THROUGH)
    bodies = _Bodies(order, start, body_low, body_high)
    triangles = _Triangles(corners, low, high, topology.normals)
    count = np.zeros(len(pairs), np.int64)
    nothing = np.empty((0, 2, 3)), np.empty((0, 2), np.int32)
    _cross(pairs, bodies, triangles, count, _Crossings(np.zeros(0, np.int64), *nothing), False)
    place = np.concatenate([np.zeros(1, np.int64), np.cumsum(count)])
    ends, faces = np.empty((int(place[-1]), 2, 3)), np.empty((int(place[-1]), 2), np.int32)
    _cross(pairs, bodies, triangles, count, _Crossings(place, ends, faces), True)
    cosine = np.abs((topology.normals[faces[:, 0]] * topology.normals[faces[:, 1]]).sum(axis=1))
    return Intersections(ends, faces, np.degrees(np.arccos(np.clip(cosine, 0.0, 1.0))))


def _near_pairs(low: Floats, high: Floats) -> Longs:
    """Pairs of boxes that overlap, lower first."""
    tree = shapely.STRtree(shapely.box(low[:, 0], low[:, 1], high[:, 0], high[:, 1]))
    a, b = tree.query(tree.geometries)
    near = (a < b) & (low[a, 2] < high[b, 2]) & (low[b, 2] < high[a, 2])
    pairs = np.stack([a[near], b[near]], axis=1).astype(np.int64)
    return pairs[np.lexsort((pairs[:, 1], pairs[:, 0]))]


class _Triangles(NamedTuple):
    """corners (F, 3, 3), low, high and normals (F, 3) of the faces of a topology, mm."""

    corners: Floats
    low: Floats
    high: Floats
    normals: Floats


class _Bodies(NamedTuple):
    """The faces of body k are `order[start[k] : start[k + 1]]`; low, high (bodies, 3) are its box, mm."""

    order: Ints
    start: Longs
    low: Floats
    high: Floats


class _Crossings(NamedTuple):
    """Room for what is found: pair k fills `ends` (m, 2, 3) and `faces` (m, 2) from `place[k]` on."""

    place: Longs
    ends: Floats
    faces: Ints


@njit(cache=True, parallel=True)
def _cross(pairs, bodies, triangles, count, crossings, fill):
    """Count (into `count`, one for each of the pairs (n, 2) of bodies) or fill in the crossings."""
    order, start = bodies.order, bodies.start
    corners, low, high, normals = triangles.corners, triangles.low, triangles.high, triangles.normals
    place, ends, faces = crossings.place, crossings.ends, crossings.faces
    for p in prange(pairs.shape[0]):
        a0, a1 = start[pairs[p, 0]], start[pairs[p, 0] + 1]
        b0, b1 = start[pairs[p, 1]], start[pairs[p, 1] + 1]
        box_low = np.maximum(bodies.low[pairs[p, 0]], bodies.low[pairs[p, 1]]).reshape(1, 3)
        box_high = np.minimum(bodies.high[pairs[p, 0]], bodies.high[pairs[p, 1]]).reshape(1, 3)
        near = np.empty(b1 - b0, np.int64)
        nears = 0
        for k in range(b0, b1):
            if _overlap(low, high, order[k], box_low, box_high, 0):
                near[nears] = order[k]
                nears += 1
        piece = np.empty((2, 3))
        found = 0
        for k in range(a0, a1):
            f = order[k]
            if not _overlap(low, high, f, box_low, box_high, 0):
                continue
            for j in range(nears):
                g = near[j]
                if (
                    _overlap(low, high, f, low, high, g)
                    and _reaches_through(corners, f, normals, g)
                    and _reaches_through(corners, g, normals, f)
                    and _crossing(corners[f], normals[f], corners[g], normals[g], piece)
                ):
                    if fill:
                        ends[place[p] + found] = piece
                        faces[place[p] + found, 0], faces[place[p] + found, 1] = min(f, g), max(f, g)
                    found += 1
        count[p] = found


@njit(cache=True)
def _overlap(low_a, high_a, a, low_b, high_b, b):
    apart = False
    for x in range(3):
        apart = apart or low_a[a, x] > high_b[b, x] or low_b[b, x] > high_a[a, x]
    return not apart


@njit(cache=True)
def _reaches_through(corners, f, normals, g):
    """Whether triangle f lies on both sides of the plane of g."""
    least, most = np.inf, -np.inf
    for k in range(3):
        off = 0.0
        for x in range(3):
            off += (corners[f, k, x] - corners[g, 0, x]) * normals[g, x]
        least, most = min(least, off), max(most, off)
    return least < -THROUGH and most > THROUGH


@njit(cache=True)
def _crossing(a, normal_a, b, normal_b, piece):
    """Whether two triangles, each through the plane of the other, meet; `piece` becomes the line where they
    do."""
    line = np.cross(normal_a, normal_b)
    if line[0] ** 2 + line[1] ** 2 + line[2] ** 2 < RUN_ALONG**2:
        return False
    chord_a, chord_b = np.empty((2, 3)), np.empty((2, 3))
    if not _chord(a, b[0], normal_b, chord_a) or not _chord(b, a[0], normal_a, chord_b):
        return False
    # Both chords lie on the line of the two planes; what they share is where the triangles meet.
    if _along(line, chord_a[0]) > _along(line, chord_a[1]):
        chord_a = chord_a[::-1].copy()
    if _along(line, chord_b[0]) > _along(line, chord_b[1]):
        chord_b = chord_b[::-1].copy()
    piece[0] = chord_a[0] if _along(line, chord_a[0]) > _along(line, chord_b[0]) else chord_b[0]
    piece[1] = chord_a[1] if _along(line, chord_a[1]) < _along(line, chord_b[1]) else chord_b[1]
    return _along(line, piece[1]) - _along(line, piece[0]) > THROUGH


@njit(cache=True)
def _along(line, point):
    return line[0] * point[0] + line[1] * point[1] + line[2] * point[2]


@njit(cache=True)
def _chord(triangle, on_plane, normal, chord):
    """Where a plane cuts a triangle that reaches through it."""
    value = np.empty(3)
    for k in range(3):
        value[k] = _along(normal, triangle[k] - on_plane)
    found = 0
    for k in range(3):
        n = (k + 1) % 3
        if (value[k] >= 0.0) != (value[n] >= 0.0):
            chord[found] = triangle[k] + (triangle[n] - triangle[k]) * (value[k] / (value[k] - value[n]))
            found += 1
    return found == 2
