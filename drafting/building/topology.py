"""What of a mesh holds for every view: its welded edges, their kinds, and the planes its faces lie in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numba import njit, prange
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from drafting.building.slivers import wide_enough, without_slivers

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Longs = NDArray[np.int64]
Bools = NDArray[np.bool_]

#: Corners of one element nearer than about this (mm) are one corner: files round to a micrometre or ten.
WELD = 0.01
#: Welding snaps to a grid; a shifted grid keeps round figures away from its cell borders.
WELD_SHIFT = 0.00137
#: Two faces are of one plane when neither's far corner leaves the other's plane by more than this (mm).
FLATNESS = 0.02
#: A body no wider than this (mm) across its length is a bar: its two sides are nearer than two wide lines can
#: stand.
SLENDER = 80.0

BOUNDARY, FLAT, FOLD = 0, 1, 2


@dataclass(frozen=True, eq=False)
class Topology:
    """Welded mesh of a building.

    Attributes:
        points: (P, 3) float64 welded corners, mm.
        faces: (F, 3) int32 indices into `points`, slivers left out, outward by the right-hand rule.
        face_source: (F,) int32 index of the triangle in the building.
        normals: (F, 3) unit normals, outward.
        plane: (F,) int32; faces that share a number are connected and of one plane.
        body: (F,) int32; faces that share a number are connected.
        edges: (E, 2) int32 corners, lower first.
        edge_faces: (E, 2) int32 adjacent faces, -1 where there is none. Where more than two
            meet, the first two that are not of one plane.
        edge_kind: (E,) BOUNDARY, FLAT (never worth a line) or FOLD.
        edge_angle: (E,) degrees between the normals of the adjacent faces, 0 for a boundary.
        closed: (number of elements,) whether every edge of the element has an even number of faces.
        turned: how many faces the file gave inside out or against their neighbours.
        slender: (number of bodies,) whether the body is a bar.
    """

    points: Floats
    faces: Ints
    face_source: Ints
    normals: Floats
    plane: Ints
    body: Ints
    edges: Ints
    edge_faces: Ints
    edge_kind: NDArray[np.int8]
    edge_angle: Floats
    closed: Bools
    turned: int
    slender: Bools


def build_topology(vertices: Floats, triangles: Ints, triangle_element: Ints) -> Topology:
    """Weld a mesh element by element, turn its faces outward, and sort out its edges."""
    points, faces = _weld(vertices, triangles, triangle_element)
    faces, kept = without_slivers(points, faces)
    normal, double_area, _ = wide_enough(points, faces)
    normals, element = normal / double_area[:, None], triangle_element[kept]

    side = np.sort(faces[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1).astype(np.int64)
    order, start, valence = _grouped(side[:, 0] * len(points) + side[:, 1])
    edges = side[order[start]].astype(np.int32)
    side_face = (order // 3).astype(np.int32)

    single = np.flatnonzero(valence == 1)
    edge_faces = np.stack([side_face[start], side_face[np.minimum(start + 1, start + valence - 1)]], axis=1)
    edge_faces[single, 1] = -1
    count = int(triangle_element.max(initial=-1)) + 1
    closed = np.ones(count, bool)
    closed[element[edge_faces[valence % 2 == 1, 0]]] = False
    body = _connected(edge_faces[valence >= 2], len(faces))

    turn = _to_be_turned(points, faces, edge_faces[valence == 2], edges[valence == 2], element, body, closed)
    faces[turn] = faces[turn][:, [0, 2, 1]]
    normals[turn] *= -1.0

    kind, angle = np.empty(len(edges), np.int8), np.zeros(len(edges))
    _sort_edges(
        points, faces, normals, _Sides(start, valence, side_face), _SortedEdges(edge_faces, kind, angle)
    )
    return Topology(
        points=points,
        faces=faces,
        face_source=kept.astype(np.int32),
        normals=normals,
        plane=_connected(edge_faces[kind == FLAT], len(faces)),
        body=body,
        edges=edges,
        edge_faces=edge_faces,
        edge_kind=kind,
        edge_angle=angle,
        closed=closed,
        turned=int(turn.sum()),
        slender=_slender(points, faces, body),
    )


def _grouped(key: Longs) -> tuple[Longs, Longs, Longs]:
    """Equal keys put together: their order, where each group starts in it, and how many each holds."""
    order = np.argsort(key, kind="stable")
    ordered = key[order]
    start = np.flatnonzero(np.concatenate([np.ones(min(1, len(key)), bool), ordered[1:] != ordered[:-1]]))
    return order, start, np.diff(np.concatenate([start, [len(key)]]))


def _weld(vertices: Floats, triangles: Ints, triangle_element: Ints) -> tuple[Floats, Ints]:
    """Join the corners of each element that lie within WELD of each other; corners of two elements stay
    apart."""
    owner = np.full(len(vertices), -1, np.int64)
    owner[triangles] = triangle_element[:, None]
    if (owner[triangles] != triangle_element[:, None]).any():  # elements that share corners in the file
        vertices, owner = vertices[triangles.reshape(-1)], np.repeat(triangle_element, 3).astype(np.int64)
        triangles = np.arange(len(vertices), dtype=np.int32).reshape(-1, 3)
    cell = np.floor(vertices / WELD + WELD_SHIFT / WELD + 0.5).astype(np.int64)
    order = np.lexsort((cell[:, 2], cell[:, 1], cell[:, 0], owner))
    apart = (cell[order[1:]] != cell[order[:-1]]).any(axis=1) | (owner[order[1:]] != owner[order[:-1]])
    number = np.concatenate([np.zeros(min(1, len(order)), np.int64), np.cumsum(apart)])
    place = np.empty(len(order), np.int32)
    place[order] = number
    # The sort is stable: the first of the file stands for all.
    first = order[np.concatenate([np.zeros(min(1, len(order)), np.int64), np.flatnonzero(apart) + 1])]
    return vertices[first], place[triangles]


def _connected(pairs: Ints, count: int) -> Ints:
    """Numbers for `count` faces such that those joined by pairs, directly or through others, share one."""
    links = coo_matrix((np.ones(len(pairs), np.int8), (pairs[:, 0], pairs[:, 1])), shape=(count, count))
    return np.asarray(connected_components(links, directed=False)[1].astype(np.int32))


def _to_be_turned(
    points: Floats, faces: Ints, pairs: Ints, shared: Ints, element: Ints, body: Ints, closed: Bools
) -> Bools:
    """Which faces the file gives inside out: against their neighbours, or as a whole element of negative
    volume."""
    turn = np.zeros(len(faces), bool)
    if not len(faces):
        return turn
    along = np.stack([_runs(faces[pairs[:, k]], shared) for k in range(2)], axis=1)
    against = along[:, 0] == along[:, 1]  # neighbours that agree run along their edge in opposite directions
    mixed = np.zeros(int(body.max()) + 1, bool)
    mixed[body[pairs[against, 0]]] = True
    if mixed.any():
        # Half the faces of a body may be the wrong ones; which half its volume tells.
        here = np.flatnonzero(mixed[body[pairs[:, 0]]])
        one, other = pairs[here, 0], pairs[here, 1]
        code = np.tile(np.where(against[here], 2, 1).astype(np.int8), 2)
        links = coo_matrix(
            (code, (np.r_[one, other], np.r_[other, one])), shape=(len(faces), len(faces))
        ).tocsr()
        _spread(links.indptr, links.indices, links.data, turn, mixed[body])
        volume = np.bincount(body, _volumes(points, faces) * np.where(turn, -1.0, 1.0))
        turn ^= (mixed & (volume < 0))[body]
    volume = np.bincount(element, _volumes(points, faces) * np.where(turn, -1.0, 1.0), len(closed))
    return turn ^ (closed & (volume < 0))[element]


def _runs(faces: Ints, edges: Ints) -> Bools:
    """Whether each face runs along its edge from the edge's first corner to its second."""
    at = np.argmax(faces == edges[:, :1], axis=1)
    following = faces[np.arange(len(faces)), (at + 1) % 3]
    return np.asarray(following == edges[:, 1])


def _volumes(points: Floats, faces: Ints) -> Floats:
    """The signed volume under each face, seen from a point near them all; they add up to a body's volume."""
    p, q, r = (points[faces[:, k]] - points[faces[:, 0]].mean(axis=0) for k in range(3))
    return np.asarray((p * np.cross(q, r)).sum(axis=1) / 6)


@njit(cache=True)
def _spread(start, neighbour, code, turn, wanted):
    """From one face of each body to its neighbours: a neighbour that disagrees (code 2) is turned."""
    done = np.zeros(turn.size, np.bool_)
    waiting = np.empty(turn.size, np.int64)
    for seed in range(turn.size):
        if done[seed] or not wanted[seed]:
            continue
        waiting[0], count = seed, 1
        done[seed] = True
        while count:
            count -= 1
            face = waiting[count]
            for k in range(start[face], start[face + 1]):
                other = neighbour[k]
                if not done[other]:
                    done[other] = True
                    turn[other] = turn[face] ^ (code[k] == 2)
                    waiting[count] = other
                    count += 1


@njit(cache=True)
def _of_one_plane(points, faces, normals, a, b):
    """Whether two faces lie in one plane and face the same way, within FLATNESS."""
    if normals[a, 0] * normals[b, 0] + normals[a, 1] * normals[b, 1] + normals[a, 2] * normals[b, 2] <= 0.5:
        return False
    least = np.inf
    for one, other in ((a, b), (b, a)):
        most = 0.0
        for k in range(3):
            off = 0.0
            for x in range(3):
                off += (points[faces[other, k], x] - points[faces[one, 0], x]) * normals[one, x]
            most = max(most, abs(off))
        least = min(least, most)
    return least < FLATNESS


class _Sides(NamedTuple):
    """The faces at edge e are `face[start[e] : start[e] + valence[e]]`."""

    start: Longs
    valence: Longs
    face: Ints


class _SortedEdges(NamedTuple):
    """As in the topology: faces (E, 2), kind and angle (E,)."""

    faces: Ints
    kind: NDArray[np.int8]
    angle: Floats


@njit(cache=True, parallel=True)
def _sort_edges(points, faces, normals, sides, edges):
    """Fill in the kind and angle of every edge, and which two of more than two faces count as its own."""
    start, valence, side_face = sides.start, sides.valence, sides.face
    edge_faces, kind, angle = edges.faces, edges.kind, edges.angle
    for e in prange(start.size):
        if valence[e] == 1:
            kind[e] = BOUNDARY
            continue
        first = side_face[start[e]]
        kind[e] = FLAT
        for k in range(start[e] + 1, start[e] + valence[e]):
            if not _of_one_plane(points, faces, normals, first, side_face[k]):
                kind[e] = FOLD
                edge_faces[e, 1] = side_face[k]
                break
        a, b = normals[edge_faces[e, 0]], normals[edge_faces[e, 1]]
        angle[e] = np.degrees(np.arccos(min(1.0, max(-1.0, a[0] * b[0] + a[1] * b[1] + a[2] * b[2]))))


def _slender(points: Floats, faces: Ints, body: Ints) -> Bools:
    """Which bodies are bars: narrow both ways across their longest direction."""
    count = int(body.max(initial=-1)) + 1
    owner = np.zeros(len(points), np.int64)
    owner[faces] = body[:, None]
    size = np.maximum(np.bincount(owner, minlength=count), 1)
    middle = np.stack([np.bincount(owner, points[:, k], count) for k in range(3)], axis=1) / size[:, None]
    away = points - middle[owner]
    spread = np.empty((count, 3, 3))
    for i in range(3):
        for j in range(i, 3):
            spread[:, i, j] = spread[:, j, i] = np.bincount(owner, away[:, i] * away[:, j], count)
    axes = np.linalg.eigh(spread)[1]
    along = np.einsum("pk,pka->pa", away, axes[owner])
    order = np.argsort(owner, kind="stable")
    starts = np.searchsorted(owner[order], np.arange(count))
    if not count:
        return np.zeros(0, bool)
    extent = np.maximum.reduceat(along[order], starts) - np.minimum.reduceat(along[order], starts)
    return np.asarray(np.sort(extent, axis=1)[:, 1] < SLENDER)
