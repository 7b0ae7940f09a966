"""What one view works on: the faces that can hide and the edges worth drawing, in view coordinates, cut and limited."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.building.topology import BOUNDARY, FOLD
from drafting.linework import tolerances as tol
from drafting.views.camera import Camera

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Faces:
    """Triangles that can hide: corners (n, 3, 3) of u, v, depth; unit normals (n, 3) in the same axes.

    `plane` numbers connected faces of one plane (-1 for a cap over a cut), `element` and `material`
    are indices into the building's.
    """

    corners: Floats
    normals: Floats
    plane: Ints
    element: Ints
    material: Ints

    def __len__(self) -> int:
        return len(self.corners)

    def take(self, which: NDArray[np.int64], corners: Floats) -> Faces:
        """The faces `which`, with other corners."""
        return Faces(corners, self.normals[which], self.plane[which], self.element[which], self.material[which])

    def joined(self, others: Faces) -> Faces:
        """These faces and others."""
        return Faces(
            np.concatenate([self.corners, others.corners]),
            np.concatenate([self.normals, others.normals]),
            np.concatenate([self.plane, others.plane]),
            np.concatenate([self.element, others.element]),
            np.concatenate([self.material, others.material]),
        )


@dataclass(frozen=True, eq=False)
class Edges:
    """Edges worth drawing where they are seen.

    Attributes:
        ends: (m, 2, 3) u, v, depth.
        plane: (m, 2) planes of the adjacent faces, -2 where there is none.
        normals: (m, 2, 3) of the adjacent faces.
        side: (m, 2) on which side of the edge (1 left, -1 right of its direction, in u and v) the
            adjacent face lies if it is seen, 0 if it is not.
        element, material: (m,) indices into the building's.
    """

    ends: Floats
    plane: Ints
    normals: Floats
    side: NDArray[np.int8]
    element: Ints
    material: Ints

    def __len__(self) -> int:
        return len(self.ends)

    def take(self, which: NDArray[Any], ends: Floats | None = None) -> Edges:
        """The edges `which`, with other ends where given."""
        return Edges(
            self.ends[which] if ends is None else ends,
            self.plane[which],
            self.normals[which],
            self.side[which],
            self.element[which],
            self.material[which],
        )


def faces_of(building: Building, camera: Camera) -> Faces:
    """All faces of a building in view coordinates, not yet cut."""
    topology = building.topology
    points = camera.project(topology.points)
    source = topology.face_source
    return Faces(
        points[topology.faces],
        topology.normals @ camera.axes.T,
        topology.plane,
        building.triangle_element[source],
        building.triangle_material[source],
    )


def edges_of(building: Building, camera: Camera, faces: Faces) -> Edges:
    """The edges worth drawing of a building, not yet cut: creases, borders, and outlines of what is smooth."""
    topology = building.topology
    points = camera.project(topology.points)
    adjacent = topology.edge_faces
    there = adjacent >= 0
    facing = np.where(there, faces.normals[adjacent, 2], 0.0)
    seen = facing > tol.EDGE_ON
    element = faces.element[adjacent[:, 0]]
    loose = ~topology.closed[element]
    # The inside of an open mesh may be all that there is to see of it.
    seen |= loose[:, None] & there & (np.abs(facing) > tol.EDGE_ON)
    crease = (topology.edge_kind == BOUNDARY) | (topology.edge_angle > tol.CREASE)
    outline = (facing[:, 0] > tol.EDGE_ON) != (facing[:, 1] > tol.EDGE_ON)
    drawn = (topology.edge_kind == BOUNDARY) | ((topology.edge_kind == FOLD) & (crease | outline))
    which = np.flatnonzero(drawn & seen.any(axis=1))

    ends = points[topology.edges[which]]
    along = ends[:, 1, :2] - ends[:, 0, :2]
    side = np.zeros((len(which), 2), np.int8)
    for k in range(2):
        face = adjacent[which, k]
        # The corner of the face that is not on the edge tells on which side the face lies.
        corner = topology.faces[face]
        apart = (corner != topology.edges[which, :1]) & (corner != topology.edges[which, 1:])
        third = points[corner[np.arange(len(which)), np.argmax(apart, axis=1)]]
        away = third[:, :2] - ends[:, 0, :2]
        cross = along[:, 0] * away[:, 1] - along[:, 1] * away[:, 0]
        side[:, k] = np.where(seen[which, k], np.sign(cross), 0)
    return Edges(
        ends,
        np.where(there[which], topology.plane[adjacent[which]], -2).astype(np.int32),
        faces.normals[adjacent[which]],
        side,
        element[which],
        faces.material[adjacent[which, 0]],
    )


def limit_faces(faces: Faces, depth: float, keep_nearer: bool) -> Faces:
    """What of the faces lies on one side of a depth; faces that cross it are cut there."""
    value = faces.corners[:, :, 2] - depth
    inside = value >= 0 if keep_nearer else value < 0
    count = inside.sum(axis=1)
    whole = np.flatnonzero(count == 3)
    which, corners = [whole], [faces.corners[whole]]
    for one_in in (True, False):
        crossing = np.flatnonzero(count == (1 if one_in else 2))
        if not len(crossing):
            continue
        # Turn each so that the corner that stands alone comes first.
        alone = np.argmax(inside[crossing] == one_in, axis=1)
        turn = (alone[:, None] + np.arange(3)) % 3
        c = np.take_along_axis(faces.corners[crossing], turn[:, :, None], axis=1)
        w = np.take_along_axis(value[crossing], turn, axis=1)
        p = _crossing(c[:, 0], c[:, 1], w[:, 0], w[:, 1])
        q = _crossing(c[:, 0], c[:, 2], w[:, 0], w[:, 2])
        if one_in:
            which.append(crossing)
            corners.append(np.stack([c[:, 0], p, q], axis=1))
        else:
            which += [crossing, crossing]
            corners += [np.stack([p, c[:, 1], c[:, 2]], axis=1), np.stack([p, c[:, 2], q], axis=1)]
    return faces.take(np.concatenate(which), np.concatenate(corners))


def limit_edges(edges: Edges, depth: float, keep_nearer: bool) -> Edges:
    """What of the edges lies on one side of a depth."""
    value = edges.ends[:, :, 2] - depth
    inside = value >= 0 if keep_nearer else value < 0
    ends = edges.ends.copy()
    for k in range(2):
        out = np.flatnonzero(~inside[:, k] & inside[:, 1 - k])
        ends[out, k] = _crossing(edges.ends[out, k], edges.ends[out, 1 - k], value[out, k], value[out, 1 - k])
    kept = np.flatnonzero(inside.any(axis=1))
    return edges.take(kept, ends[kept])


def _crossing(a: Floats, b: Floats, at_a: Floats, at_b: Floats) -> Floats:
    """The points between a and b where a value that is at_a and at_b there is nought."""
    share = at_a / np.where(at_a == at_b, 1.0, at_a - at_b)
    return np.asarray(a + (b - a) * share[:, None])
