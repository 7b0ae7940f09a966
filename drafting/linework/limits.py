"""Where a view begins and ends: beyond its cuts, and within the field of view of a perspective."""

from __future__ import annotations

import math

from drafting.linework import tolerances as tol
from drafting.linework.scene import Edges, Faces, limit_edges, limit_faces
from drafting.views.camera import NEAREST, Camera, CutPlane


def _planes_of(cut: CutPlane) -> list[tuple[float, float, float, float]]:
    """What lies beyond a cut, between its jogs, as far as it is seen."""
    planes = [(0.0, 0.0, -1.0, cut.depth - tol.IN_PLANE)]
    if math.isfinite(cut.low):
        planes.append((1.0, 0.0, 0.0, -cut.low))
    if math.isfinite(cut.high):
        planes.append((-1.0, 0.0, 0.0, cut.high))
    if math.isfinite(cut.far):
        planes.append((0.0, 0.0, 1.0, tol.IN_PLANE - cut.far))
    return planes


def cut_off(faces: Faces, cut: CutPlane) -> Faces:
    """What of the faces lies beyond a cut, between its jogs."""
    for plane in _planes_of(cut):
        faces = limit_faces(faces, plane)
    return faces


def cut_edges_off(edges: Edges, cut: CutPlane) -> Edges:
    """What of the edges does."""
    for plane in _planes_of(cut):
        edges = limit_edges(edges, plane)
    return edges


def field_of_view(camera: Camera) -> list[tuple[float, float, float, float]]:
    """The planes within which a perspective sees: before the eye, and a square about the target."""
    if camera.distance is None:
        return []
    half = math.tan(math.radians(camera.angle) / 2)
    sides = [
        (a, b, -half, half * camera.distance) for a, b in ((1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0))
    ]
    return [(0.0, 0.0, -1.0, camera.distance - NEAREST), *sides]
