"""Where a view's eye stands: the axes it measures along, where it cuts and how far it sees."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building

Floats = NDArray[np.float64]

UP = np.array([0.0, 0.0, 1.0])
#: What is nearer to the eye of a perspective than this is behind its back for all that a drawing needs, mm.
NEAREST = 100.0


@dataclass(frozen=True)
class CutPlane:
    """A cutting plane at `depth`, mm, from u = `low` to u = `high`: what is nearer to the viewer is taken
    away, and what lies beyond `far` is not seen."""

    depth: float
    low: float = -math.inf
    high: float = math.inf
    far: float = -math.inf


@dataclass(frozen=True, eq=False)
class Camera:
    """A projection: parallel, or a perspective where it has a distance.

    Attributes:
        right, up, toward: unit vectors in model axes; `toward` points to the viewer.
        origin: the model point with u = v = depth = 0, mm; the target of a perspective.
        cuts: cutting planes, side by side from the least u to the greatest; empty for no cut.
        far: depth beyond which nothing is seen, mm. None for no limit.
        distance: from target to eye, mm; None for a parallel projection.
        angle: field of view of a perspective, degrees.
    """

    right: Floats
    up: Floats
    toward: Floats
    origin: Floats
    cuts: tuple[CutPlane, ...] = ()
    far: float | None = None
    distance: float | None = None
    angle: float = 0.0

    @property
    def axes(self) -> Floats:
        """(3, 3): rows right, up, toward."""
        return np.stack([self.right, self.up, self.toward])

    def along_axes(self, points: Floats) -> Floats:
        """Model points (n, 3) to (n, 3) of how far they lie to the right, up and toward the viewer, mm."""
        return np.asarray((points - self.origin) @ self.axes.T)

    def project(self, points: Floats) -> Floats:
        """Model points (n, 3) to (n, 3) of u, v, depth. In a perspective they must lie before the eye."""
        return self.pictured(self.along_axes(points))

    def pictured(self, along: Floats) -> Floats:
        """Points (..., 3) along the axes to u, v, depth.

        A perspective maps (x, y, t) to D / (D - t) times it: straight lines stay straight and planes
        plane, true size is that at the target, and nearer keeps the greater depth.
        """
        if self.distance is None:
            return along
        return np.asarray(along * (self.distance / (self.distance - along[..., 2:])))

    def true_depth(self, depth: Floats) -> Floats:
        """How far toward the viewer, mm, points of a pictured depth lie."""
        if self.distance is None:
            return depth
        return np.asarray(self.distance * depth / (self.distance + depth))

    def pictured_depth(self, depth: Floats) -> Floats:
        """The opposite of `true_depth`."""
        if self.distance is None:
            return depth
        return np.asarray(self.distance * depth / (self.distance - depth))


def limited(building: Building, camera: Camera, depth: float | None) -> Camera:
    """The camera with a far limit so deep behind each of its cuts, or else behind the building's nearest
    point."""
    if depth is None:
        return camera
    cuts = tuple(replace(cut, far=cut.depth - depth) for cut in camera.cuts)
    far = min(cut.far for cut in cuts) if cuts else nearest_depth(building, camera) - depth
    return Camera(camera.right, camera.up, camera.toward, camera.origin, cuts, far=far)


def nearest_depth(building: Building, camera: Camera) -> float:
    """The depth of the building's nearest point, mm."""
    return float((building.vertices @ camera.toward).max() - camera.origin @ camera.toward)


def direction_from(bearing: float, altitude: float) -> Floats:
    """Unit vector to a viewer who stands at a bearing and altitude, degrees."""
    b, a = math.radians(bearing), math.radians(altitude)
    # Sines of whole quarters leave a rounding that would tilt a wall seen edge on.
    way = np.array([math.sin(b) * math.cos(a), math.cos(b) * math.cos(a), math.sin(a)])
    return np.where(np.abs(way) < 1e-12, 0.0, way)


def upright_camera(
    toward: Floats,
    origin: Floats,
    cuts: tuple[CutPlane, ...] = (),
    distance: float | None = None,
    angle: float = 0.0,
) -> Camera:
    """A camera whose paper's up is the model's up as seen from `toward`."""
    toward = toward / np.linalg.norm(toward)
    right = np.cross(UP, toward)
    right /= np.linalg.norm(right)
    return Camera(right, np.cross(toward, right), toward, origin, cuts, distance=distance, angle=angle)
