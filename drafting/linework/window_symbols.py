"""How windows open, in elevations: from two corners of a panel to the side that it is hung on."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from drafting.building.model import Building
from drafting.building.windows import BuildingWindow, Hinge, Panel
from drafting.linework.model import HIDDEN, SYMBOL
from drafting.linework.scene import Edges
from drafting.views.camera import Camera

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

#: A window is seen where it faces the viewer or turns away by less than this from doing so (cosine).
FACING = 0.05
#: Lines lie so far before the frame that no moulding of it hides them; mm.
BEFORE = 5.0


def opening_lines(building: Building, camera: Camera, shown: Bools) -> Edges | None:
    """The lines of all windows that are shown and face the viewer, to be hidden like any edge; None for none.

    Full where a window opens toward the viewer; where it opens away their role is that of hidden lines, which
    pens dash.
    """
    ends, owner, role = [], [], []
    for element, window in building.windows.items():
        facing = float(np.dot(window.into, camera.toward))
        if not shown[element] or abs(facing) < FACING:
            continue
        for line in _lines(window, facing > 0):
            ends.append(line)
            owner.append(element)
            role.append(SYMBOL if facing > 0 else HIDDEN)
    if not ends:
        return None
    count = len(ends)
    nothing = np.zeros(count, bool)
    flat = camera.along_axes(np.array(ends).reshape(-1, 3)).reshape(-1, 2, 3)
    return Edges(
        flat,
        np.full((count, 2), -2, np.int32),
        np.tile(np.array([0.0, 0.0, 1.0]), (count, 2, 1)),
        np.zeros((count, 2), np.int8),
        nothing,
        nothing,
        np.array(owner, np.int32),
        np.full(count, -1, np.int32),
        np.full(count, -1, np.int32),
        np.array(role, np.int8),
    )


def _lines(window: BuildingWindow, toward: bool) -> Iterator[Floats]:
    """(2, 3) model points of each line; `toward` says that the window opens toward the viewer."""
    corner, along, into = (np.array(x) for x in (window.corner, window.along, window.into))
    # Before the face of the frame that the viewer looks at.
    before = into * (BEFORE if toward else -window.depth - BEFORE)
    up = np.array([0.0, 0.0, 1.0])
    for panel in window.panels:
        for hinge in panel.hinges:
            for a, b in _triangle(panel, hinge):
                yield np.array([
                    corner + before + along * x * window.width + up * z * window.height for x, z in (a, b)
                ])  # fmt: skip


def _triangle(panel: Panel, hinge: Hinge) -> list[tuple[tuple[float, float], tuple[float, float]]]:
    """The sides of a panel's triangle that meet at its hinge, as shares of the window. Right and left are as
    seen from outside, where the width runs from right to left."""
    x0, x1, z0, z1 = panel.place
    x, z = (x0 + x1) / 2, (z0 + z1) / 2
    corners = {
        "right": [((x1, z0), (x0, z)), ((x1, z1), (x0, z))],
        "left": [((x0, z0), (x1, z)), ((x0, z1), (x1, z))],
        "top": [((x0, z0), (x, z1)), ((x1, z0), (x, z1))],
        "bottom": [((x0, z1), (x, z0)), ((x1, z1), (x, z0))],
        "level": [((x0, z), (x, z1)), ((x1, z), (x, z1)), ((x0, z), (x, z0)), ((x1, z), (x, z0))],
        "upright": [((x, z0), (x0, z)), ((x, z1), (x0, z)), ((x, z0), (x1, z)), ((x, z1), (x1, z))],
    }
    return corners[hinge]
