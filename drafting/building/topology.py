"""What of a mesh holds for every view: its welded edges, their kinds, and the planes its faces lie in."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Bools = NDArray[np.bool_]

#: Corners of one element nearer than about this (mm) are one corner: files round to a micrometre or ten.
WELD = 0.01
#: Welding snaps to a grid; a shifted grid keeps round figures away from its cell borders.
WELD_SHIFT = 0.00137
#: Two faces are of one plane when neither's far corner leaves the other's plane by more than this (mm).
FLATNESS = 0.02
#: A triangle thinner than this (mm, its least height) covers nothing and is left out.
THINNEST = 1e-4

BOUNDARY, FLAT, FOLD = 0, 1, 2


@dataclass(frozen=True, eq=False)
class Topology:
    """Welded mesh of a building.

    Attributes:
        points: (P, 3) float64 welded corners, mm.
        faces: (F, 3) int32 indices into `points`, slivers left out.
        face_source: (F,) int32 index of the triangle in the building.
        normals: (F, 3) unit normals.
        plane: (F,) int32; faces that share a number are connected and of one plane.
        body: (F,) int32; faces that share a number are connected.
        edges: (E, 2) int32 corners, lower first.
        edge_faces: (E, 2) int32 adjacent faces, -1 where there is none. Where more than two
            meet, the first two that are not of one plane.
        edge_kind: (E,) BOUNDARY, FLAT (never worth a line) or FOLD.
        edge_angle: (E,) degrees between the normals of the adjacent faces, 0 for a boundary.
        closed: (number of elements,) whether every edge of the element has an even number of faces.
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


def build_topology(vertices: Floats, triangles: Ints, triangle_element: Ints) -> Topology:
    """Weld a mesh element by element and sort out its edges."""
    points, faces = _weld(vertices, triangles, triangle_element)
    p, q, r = (points[faces[:, k]] for k in range(3))
    normal = np.cross(q - p, r - p)
    double_area = np.linalg.norm(normal, axis=1)
    longest = np.sqrt(np.max([((q - p) ** 2).sum(1), ((r - q) ** 2).sum(1), ((p - r) ** 2).sum(1)], axis=0))
    kept = np.flatnonzero(double_area > THINNEST * np.maximum(longest, THINNEST))
    faces = faces[kept].astype(np.int32)
    normals = normal[kept] / double_area[kept, None]
    element = triangle_element[kept]

    sides = np.sort(faces[:, [[0, 1], [1, 2], [2, 0]]].reshape(-1, 2), axis=1)
    side_face = np.repeat(np.arange(len(faces), dtype=np.int32), 3)
    edges, side_edge, valence = np.unique(sides, axis=0, return_inverse=True, return_counts=True)
    side_edge = side_edge.reshape(-1)
    order = np.argsort(side_edge, kind="stable")
    start = np.concatenate([[0], np.cumsum(valence)])[:-1]
    first = side_face[order[start]]
    edge_faces = np.stack([first, np.full(len(edges), -1, np.int32)], axis=1).astype(np.int32)
    two = np.flatnonzero(valence >= 2)
    edge_faces[two, 1] = side_face[order[start[two] + 1]]

    flat = np.zeros(len(edges), bool)
    flat[two] = _of_one_plane(points, faces, normals, edge_faces[two, 0], edge_faces[two, 1])
    for e in np.flatnonzero(valence > 2):
        around = side_face[order[start[e] : start[e] + valence[e]]]
        others = around[1:]
        bent = ~_of_one_plane(points, faces, normals, np.full(len(others), around[0]), others)
        flat[e] = not bent.any()
        edge_faces[e, 1] = others[np.argmax(bent)]

    kind = np.where(valence == 1, BOUNDARY, np.where(flat, FLAT, FOLD)).astype(np.int8)
    cosine = np.ones(len(edges))
    cosine[two] = (normals[edge_faces[two, 0]] * normals[edge_faces[two, 1]]).sum(1)

    count = int(triangle_element.max()) + 1 if len(triangle_element) else 0
    closed = np.ones(count, bool)
    closed[element[first[valence % 2 == 1]]] = False
    return Topology(
        points=points,
        faces=faces,
        face_source=kept.astype(np.int32),
        normals=normals,
        plane=_connected(edge_faces[flat], len(faces)),
        body=_connected(edge_faces[two], len(faces)),
        edges=edges.astype(np.int32),
        edge_faces=edge_faces,
        edge_kind=kind,
        edge_angle=np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0))),
        closed=closed,
    )


def _weld(vertices: Floats, triangles: Ints, triangle_element: Ints) -> tuple[Floats, Ints]:
    """Join the corners of each element that lie within WELD of each other; corners of two elements stay apart."""
    corner = triangles.reshape(-1)
    owner = np.repeat(triangle_element, 3).astype(np.int64)
    cell = np.floor(vertices[corner] / WELD + WELD_SHIFT / WELD + 0.5).astype(np.int64)
    key = np.column_stack([owner, cell])
    _, first, inverse = np.unique(key, axis=0, return_index=True, return_inverse=True)
    return vertices[corner[first]], inverse.reshape(-1, 3).astype(np.int32)


def _connected(pairs: Ints, count: int) -> Ints:
    """Numbers for `count` faces such that those joined by pairs, directly or through others, share one."""
    links = coo_matrix((np.ones(len(pairs)), (pairs[:, 0], pairs[:, 1])), shape=(count, count))
    return np.asarray(connected_components(links, directed=False)[1].astype(np.int32))


def _of_one_plane(points: Floats, faces: Ints, normals: Floats, a: Ints, b: Ints) -> Bools:
    """Whether faces a[i] and b[i] lie in one plane and face the same way, within FLATNESS."""
    along = (normals[a] * normals[b]).sum(1) > 0.5
    from_b = np.abs(((points[faces[b]] - points[faces[a, 0]][:, None]) * normals[a][:, None]).sum(2)).max(1)
    from_a = np.abs(((points[faces[a]] - points[faces[b, 0]][:, None]) * normals[b][:, None]).sum(2)).max(1)
    return np.asarray(along & (np.minimum(from_a, from_b) < FLATNESS))
