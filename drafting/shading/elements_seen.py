"""Which element of a building is seen at each place of a window on a view."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.shading.appearance import Appearance
from drafting.shading.scene import surfaces_of
from drafting.shading.shader import Shader
from drafting.shading.window import Window
from drafting.views.spec import AnyView

#: What is seen depends on no light.
_DARK = Appearance("colours", shadows=0.0, sky=0.0)


def elements_seen(
    building: Building, view: AnyView, window: Window, columns: int, rows: int
) -> tuple[NDArray[np.int32], NDArray[np.float64]]:
    """The number of the element that is nearest at each of (rows, columns) places, -1 for none, and its
    pictured depth, mm. Glass counts as all else.

    Raises:
        ViewError: the view uses something that the building does not have.
    """
    camera = view.camera(building)
    surfaces = surfaces_of(building, camera, view.shown.mask(building), None)
    seen = Shader(building, camera, _DARK, surfaces).nearest(window.frame(columns, rows), columns, (0, rows))
    elements = np.where(seen.face >= 0, surfaces.true.element[seen.face], -1).astype(np.int32)
    depths = np.where(np.isfinite(seen.depth), seen.depth, 0.0)
    return elements.reshape(rows, columns), depths.reshape(rows, columns)
