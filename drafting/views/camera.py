"""Where a view's eye stands: the axes it measures along, where it cuts and how far it sees."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.views.spec import ViewSpec

Floats = NDArray[np.float64]

_UP = np.array([0.0, 0.0, 1.0])
#: The way from the building to the viewer. Project north is the model's y axis.
_SIDE_TOWARD = {"north": (0, 1, 0), "south": (0, -1, 0), "east": (1, 0, 0), "west": (-1, 0, 0)}
#: Isometric (ISO 5456-3): the three axes stand at 120 degrees on paper.
_CORNER_TOWARD = {"ne": (1, 1, 1), "nw": (-1, 1, 1), "se": (1, -1, 1), "sw": (-1, -1, 1)}


@dataclass(frozen=True, eq=False)
class Camera:
    """A parallel projection.

    Attributes:
        right, up, toward: unit vectors in model axes; `toward` points to the viewer.
        origin: the model point with u = v = depth = 0, mm.
        cut: depth of the cutting plane, mm; what is nearer to the viewer is taken away. None for no cut.
        far: depth beyond which nothing is seen, mm. None for no limit.
    """

    right: Floats
    up: Floats
    toward: Floats
    origin: Floats
    cut: float | None = None
    far: float | None = None

    @property
    def axes(self) -> Floats:
        """(3, 3): rows right, up, toward."""
        return np.stack([self.right, self.up, self.toward])

    def project(self, points: Floats) -> Floats:
        """Model points (n, 3) to (n, 3) of u, v, depth."""
        return np.asarray((points - self.origin) @ self.axes.T)


def camera_for(building: Building, view: ViewSpec) -> Camera:
    """The camera of a view.

    Raises:
        ViewError: the view asks for a storey that the building has not.
    """
    origin = building.origin
    if view.kind in ("plan", "roof"):
        cut = building.storey_named(view.storey).elevation + view.cut - origin[2] if view.kind == "plan" else None
        return Camera(np.array([1.0, 0, 0]), np.array([0, 1.0, 0]), _UP, origin, cut=cut)
    if view.kind == "elevation":
        return _upright(np.array(_SIDE_TOWARD[view.side], float), origin)
    if view.kind == "axonometric":
        return _upright(np.array(_CORNER_TOWARD[view.corner], float), origin)
    assert view.line is not None  # a section without its line cannot be made
    start = np.array([view.line[0], view.line[1], 0.0])
    along = np.array([view.line[2], view.line[3], 0.0]) - start
    seen = np.array([-along[1], along[0], 0.0])  # to the left of the line's direction
    camera = _upright(-seen, origin)
    cut = float((start - origin) @ camera.toward)
    return Camera(
        camera.right, camera.up, camera.toward, origin, cut=cut, far=None if view.depth is None else cut - view.depth
    )


def _upright(toward: Floats, origin: Floats) -> Camera:
    """A camera whose paper's up is the model's up as seen from `toward`."""
    toward = toward / np.linalg.norm(toward)
    right = np.cross(_UP, toward)
    right /= np.linalg.norm(right)
    return Camera(right, np.cross(toward, right), toward, origin)
