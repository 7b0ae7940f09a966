"""Where a view's eye stands: the axes it measures along, where it cuts and how far it sees."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.views.spec import ViewSpec

Floats = NDArray[np.float64]

_UP = np.array([0.0, 0.0, 1.0])
#: Where the viewer stands: degrees clockwise from north. Project north is the model's y axis.
_SIDE_BEARING = {"north": 0.0, "east": 90.0, "south": 180.0, "west": 270.0}
_CORNER_BEARING = {"ne": 45.0, "se": 135.0, "sw": 225.0, "nw": 315.0}
#: Isometric (ISO 5456-3): the three axes stand at 120 degrees on paper.
_ISOMETRIC = math.degrees(math.atan(math.sqrt(0.5)))
#: What is nearer to the eye of a perspective than this is behind its back for all that a drawing needs, mm.
NEAREST = 100.0


@dataclass(frozen=True)
class Cut:
    """A cutting plane at `depth`, mm, from u = `low` to u = `high`: what is nearer to the viewer is taken away."""

    depth: float
    low: float = -math.inf
    high: float = math.inf


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
    cuts: tuple[Cut, ...] = ()
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


def camera_for(building: Building, view: ViewSpec) -> Camera:
    """The camera of a view; of a detail that of the view it is a part of.

    Raises:
        ViewError: the view asks for a storey that the building has not.
    """
    origin = building.origin
    if view.kind == "detail":
        assert view.of is not None  # a detail of nothing cannot be made
        return camera_for(building, view.of)
    if view.kind in ("plan", "roof"):
        cuts: tuple[Cut, ...] = ()
        if view.kind == "plan":
            cuts = (Cut(building.storey_named(view.storey).elevation + view.cut - float(origin[2])),)
        camera = Camera(np.array([1.0, 0, 0]), np.array([0, 1.0, 0]), _UP, origin, cuts)
        return _limited(building, camera, view.depth)
    if view.kind == "perspective":
        eye, target = np.array(view.eye, float), np.array(view.target, float)
        distance = float(np.linalg.norm(eye - target))
        return _upright(eye - target, target, distance=distance, angle=view.angle)
    if view.kind == "elevation":
        bearing = _SIDE_BEARING[view.side] if view.bearing is None else view.bearing
        cuts = () if view.near is None else (Cut(view.near),)
        return _limited(building, _upright(_standing(bearing, 0.0), origin, cuts), view.depth)
    if view.kind == "axonometric":
        bearing = _CORNER_BEARING[view.corner] if view.bearing is None else view.bearing
        altitude = _ISOMETRIC if view.bearing is None or view.altitude is None else view.altitude
        return _upright(_standing(bearing, altitude), origin)
    return _limited(building, _section_camera(view, origin), view.depth)


def _section_camera(view: ViewSpec, origin: Floats) -> Camera:
    points = np.array([(x, y, 0.0) for x, y in view.corners_of_line])
    along = points[1] - points[0]
    camera = _upright(np.array([along[1], -along[0], 0.0]), origin)  # the viewer stands to the right of the line
    at = camera.along_axes(points)
    # Of along, across, along ... only the first, third and so on cut; u falls or rises along the line.
    pieces = sorted((sorted((a, b), key=lambda p: p[0]) for a, b in list(pairwise(at.tolist()))[::2]))
    ends = [-math.inf, *(b[0] for _, b in pieces[:-1]), math.inf]
    cuts = tuple(Cut(float(a[2]), low, high) for (a, _), (low, high) in zip(pieces, pairwise(ends), strict=True))
    return Camera(camera.right, camera.up, camera.toward, origin, cuts)


def _limited(building: Building, camera: Camera, depth: float | None) -> Camera:
    """The camera with a far limit so deep behind its deepest cut, or else behind the building's nearest point."""
    if depth is None:
        return camera
    begins = min(cut.depth for cut in camera.cuts) if camera.cuts else nearest_depth(building, camera)
    return Camera(camera.right, camera.up, camera.toward, camera.origin, camera.cuts, far=begins - depth)


def nearest_depth(building: Building, camera: Camera) -> float:
    """The depth of the building's nearest point, mm."""
    return float((building.vertices @ camera.toward).max() - camera.origin @ camera.toward)


def _standing(bearing: float, altitude: float) -> Floats:
    """The way to a viewer who stands at a bearing and altitude, degrees."""
    b, a = math.radians(bearing), math.radians(altitude)
    # Sines of whole quarters leave a rounding that would tilt a wall seen edge on.
    way = np.array([math.sin(b) * math.cos(a), math.cos(b) * math.cos(a), math.sin(a)])
    return np.where(np.abs(way) < 1e-12, 0.0, way)


def _upright(
    toward: Floats, origin: Floats, cuts: tuple[Cut, ...] = (), distance: float | None = None, angle: float = 0.0
) -> Camera:
    """A camera whose paper's up is the model's up as seen from `toward`."""
    toward = toward / np.linalg.norm(toward)
    right = np.cross(_UP, toward)
    right /= np.linalg.norm(right)
    return Camera(right, np.cross(toward, right), toward, origin, cuts, distance=distance, angle=angle)
