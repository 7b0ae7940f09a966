"""What one view works on: the faces that can hide and the edges worth drawing, along the axes of its
camera."""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import Any

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.building.topology import BOUNDARY, FOLD
from drafting.linework import tolerances as tol
from drafting.views.camera import Camera
from drafting.views.line_settings import DEFAULT_LINE_SETTINGS, LineSettings

Floats = NDArray[np.float64]
Ints = NDArray[np.int32]
Bools = NDArray[np.bool_]


@dataclass(frozen=True, eq=False)
class Faces:
    """Triangles that can hide: corners (n, 3, 3) of u, v, depth; unit normals (n, 3) in the same axes.

    `plane` numbers connected faces of one plane (-1 for a cap over a cut), `element` and `material`
    are indices into the building's. `solid` says that the face is the outside of a closed body: seen from
    behind it hides nothing that the front of the body does not.
    """

    corners: Floats
    normals: Floats
    plane: Ints
    element: Ints
    material: Ints
    solid: Bools

    def __len__(self) -> int:
        return len(self.corners)

    def select(
        self, which: NDArray[Any], corners: Floats | None = None, normals: Floats | None = None
    ) -> Faces:
        """The faces `which`, with other corners or normals where given."""
        return Faces(
            self.corners[which] if corners is None else corners,
            self.normals[which] if normals is None else normals,
            self.plane[which],
            self.element[which],
            self.material[which],
            self.solid[which],
        )

    def joined(self, others: Faces) -> Faces:
        """These faces and others."""
        return Faces(
            *(np.concatenate([getattr(self, f.name), getattr(others, f.name)]) for f in fields(self))
        )


@dataclass(frozen=True, eq=False)
class Edges:
    """Edges worth drawing where they are seen.

    Attributes:
        ends: (m, 2, 3) u, v, depth.
        plane: (m, 2) planes of the adjacent faces, -2 where there is none.
        normals: (m, 2, 3) of the adjacent faces.
        side: (m, 2) on which side of the edge (1 left, -1 right of its direction, in u and v) the
            adjacent face lies if it is seen, 0 if it is not; 0 too where bodies meet.
        smooth: (m,) whether the edge is there only as the outline of something smooth.
        bar: (m,) whether the edge is of a bar, too narrow for wide outlines.
        element, material: (m,) indices into the building's.
        meets: (m,) the other element where two bodies pass through each other; -1 elsewhere.
        fixed: (m,) the role that it has where it is seen; -1 where its background tells.
    """

    ends: Floats
    plane: Ints
    normals: Floats
    side: NDArray[np.int8]
    smooth: Bools
    bar: Bools
    element: Ints
    material: Ints
    meets: Ints
    fixed: NDArray[np.int8]

    def __len__(self) -> int:
        return len(self.ends)

    def select(self, which: NDArray[Any], ends: Floats | None = None, normals: Floats | None = None) -> Edges:
        """The edges `which`, with other ends or normals where given."""
        return Edges(
            self.ends[which] if ends is None else ends,
            self.plane[which],
            self.normals[which] if normals is None else normals,
            self.side[which],
            self.smooth[which],
            self.bar[which],
            self.element[which],
            self.material[which],
            self.meets[which],
            self.fixed[which],
        )

    def joined(self, others: Edges) -> Edges:
        """These edges and others."""
        return Edges(
            *(np.concatenate([getattr(self, f.name), getattr(others, f.name)]) for f in fields(self))
        )


def faces_of(building: Building, camera: Camera) -> Faces:
    """All faces of a building along the axes of a camera, not yet cut; numbered as in its topology."""
    topology = building.topology
    source = topology.face_source
    element = building.triangle_element[source]
    return Faces(
        camera.along_axes(topology.points)[topology.faces],
        topology.normals @ camera.axes.T,
        topology.plane,
        element,
        building.triangle_material[source],
        topology.closed[element],
    )


def edges_of(
    building: Building,
    camera: Camera,
    faces: Faces,
    shown: Bools,
    settings: LineSettings = DEFAULT_LINE_SETTINGS,
) -> Edges:
    """The edges worth drawing of what is shown, not yet cut.

    Creases, borders, outlines of what is smooth, and lines where bodies pass through each other. Those
    that no face turned to the viewer adjoins are among them only where hidden lines are wanted.

    Args:
        faces: all of the building's, as `faces_of` gives them.
        shown: (number of elements,) which are there.
    """
    topology, intersections = building.topology, building.intersections
    points = camera.along_axes(topology.points)
    facing = _facing(faces.normals, faces.corners, camera)
    turned = facing > tol.EDGE_ON
    # The inside of an open mesh may be all that there is to see of it.
    open_to_view = turned | (~faces.solid & (np.abs(facing) > tol.EDGE_ON))

    adjacent = topology.edge_faces
    there = adjacent >= 0
    crease = (topology.edge_kind == BOUNDARY) | (topology.edge_angle > settings.crease)
    outline = there[:, 1] & np.not_equal(turned[adjacent[:, 0]], turned[adjacent[:, 1]])
    drawn = (topology.edge_kind == BOUNDARY) | ((topology.edge_kind == FOLD) & (crease | outline))
    seen = (open_to_view[adjacent] & there).any(axis=1)
    which = np.flatnonzero(drawn & (seen | settings.hidden) & shown[faces.element[adjacent[:, 0]]])
    pairs = adjacent[which]
    corners = topology.edges[which]
    ends = points[corners]
    side = np.zeros((len(which), 2), np.int8)
    for k in range(2):
        # The corner of the face that is not on the edge tells on which side the face lies.
        corner = topology.faces[pairs[:, k]]
        apart = (corner != corners[:, :1]) & (corner != corners[:, 1:])
        third = points[corner[np.arange(len(which)), np.argmax(apart, axis=1)]]
        lies = _left_of(ends[:, 0], ends[:, 1], third, camera)
        side[:, k] = np.where(open_to_view[pairs[:, k]] & there[which, k], lies, 0)

    across = np.flatnonzero(
        shown[faces.element[intersections.faces]].all(axis=1)
        & (intersections.angle > settings.crease)
        & (open_to_view[intersections.faces].any(axis=1) | settings.hidden)
    )
    met = intersections.faces[across]
    both = np.concatenate([pairs, met])
    bar = topology.slender[topology.body[both]]
    return Edges(
        np.concatenate(
            [ends, camera.along_axes(intersections.ends[across].reshape(-1, 3)).reshape(-1, 2, 3)]
        ),
        np.where(np.concatenate([there[which], np.ones_like(met, bool)]), topology.plane[both], -2).astype(
            np.int32
        ),
        faces.normals[both],
        np.concatenate([side, np.zeros((len(across), 2), np.int8)]),
        np.concatenate([~crease[which], np.zeros(len(across), bool)]),
        bar[:, 0],
        faces.element[both[:, 0]],
        faces.material[both[:, 0]],
        np.concatenate([np.full(len(which), -1, np.int32), faces.element[met[:, 1]]]),
        np.full(len(both), -1, np.int8),
    )


def _facing(normals: Floats, corners: Floats, camera: Camera) -> Floats:
    """How far each face is turned to the viewer: cosine, or its like in a perspective; below 0 from
    behind."""
    if camera.distance is None:
        return normals[:, 2]
    offset = -(normals * corners[:, 0]).sum(axis=1)
    return np.asarray(normals[:, 2] + offset / camera.distance)


def _left_of(a: Floats, b: Floats, c: Floats, camera: Camera) -> NDArray[np.int8]:
    """1 where c is seen to the left of the way from a to b, -1 to its right, 0 on it."""
    if camera.distance is None:
        along, away = (b - a)[:, :2], (c - a)[:, :2]
        cross = along[:, 0] * away[:, 1] - along[:, 1] * away[:, 0]
    else:
        eye = np.array([0.0, 0.0, camera.distance])
        cross = -(np.cross(a - eye, b - eye) * (c - eye)).sum(axis=1)
    return np.sign(cross).astype(np.int8)


def limit_faces(faces: Faces, plane: tuple[float, float, float, float]) -> Faces:
    """What of the faces has a u + b v + c depth + d > 0; faces that cross that plane are cut there."""
    value = faces.corners @ np.array(plane[:3]) + plane[3]
    inside = value > 0
    count = inside.sum(axis=1)
    whole = np.flatnonzero(count == 3)
    if len(whole) == len(faces):
        return faces
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
    return faces.select(np.concatenate(which), np.concatenate(corners))


def limit_edges(edges: Edges, plane: tuple[float, float, float, float]) -> Edges:
    """What of the edges has a u + b v + c depth + d > 0."""
    value = edges.ends @ np.array(plane[:3]) + plane[3]
    inside = value > 0
    ends = edges.ends.copy()
    for k in range(2):
        out = np.flatnonzero(~inside[:, k] & inside[:, 1 - k])
        ends[out, k] = _crossing(edges.ends[out, k], edges.ends[out, 1 - k], value[out, k], value[out, 1 - k])
    kept = np.flatnonzero(inside.any(axis=1))
    return edges.select(kept, ends[kept])


def _crossing(a: Floats, b: Floats, at_a: Floats, at_b: Floats) -> Floats:
    """The points between a and b where a value that is at_a and at_b there is zero."""
    share = at_a / np.where(at_a == at_b, 1.0, at_a - at_b)
    return np.asarray(a + (b - a) * share[:, None])


def into_picture(faces: Faces, edges: Edges, camera: Camera) -> tuple[Faces, Edges]:
    """Faces and edges along the axes of a camera as its picture has them; the same for a parallel
    projection."""
    if camera.distance is None:
        return faces, edges
    edge_normals = [
        _pictured_normals(edges.normals[:, k], edges.ends[:, 0], camera.distance) for k in range(2)
    ]
    return (
        faces_into_picture(faces, camera),
        edges.select(np.arange(len(edges)), camera.pictured(edges.ends), np.stack(edge_normals, axis=1)),
    )


def faces_into_picture(faces: Faces, camera: Camera) -> Faces:
    """Faces along the axes of a camera as its picture has them; the same for a parallel projection."""
    if camera.distance is None:
        return faces
    normals = _pictured_normals(faces.normals, faces.corners.mean(axis=1), camera.distance)
    return faces.select(np.arange(len(faces)), camera.pictured(faces.corners), normals)


def _pictured_normals(normals: Floats, on_plane: Floats, distance: float) -> Floats:
    """Normals of planes as a perspective pictures them: a x + b y + c t + e = 0 goes to (a, b, c + e /
    distance)."""
    pictured = normals.copy()
    pictured[:, 2] -= (normals * on_plane).sum(axis=1) / distance
    length = np.linalg.norm(pictured, axis=1)
    return np.asarray(pictured / np.where(length > 0, length, 1.0)[:, None])
