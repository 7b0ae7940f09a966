"""All steps loaded and the compiled kernels at hand, before the first work comes."""

from __future__ import annotations

import numpy as np

from drafting.building.model import Building, Element, Storey
from drafting.linework.engine import draw
from drafting.shading.appearance import Appearance
from drafting.shading.picture import picture_of
from drafting.shading.window import Window
from drafting.tasks import comparisons, drawings, models, reviews, sheets
from drafting.views.axonometric import Axonometric
from drafting.views.line_settings import LineSettings
from drafting.views.plan import Plan

#: What a process has loaded before its first work.
STEPS = (comparisons, drawings, models, reviews, sheets)


def warm() -> None:
    """Load the compiled kernels by drawing two cubes, so that no user waits for the compiler."""
    # Between them these pass through every kernel: a cut, what is hidden, and a body that passes through
    # another and is given partly inside out.
    corners = np.array([[x, y, z] for z in (0.0, 2000.0) for y in (0.0, 1000.0) for x in (0.0, 1000.0)])
    faces = [
        [0, 2, 3],
        [0, 3, 1],
        [4, 5, 7],
        [4, 7, 6],
        [0, 1, 5],
        [0, 5, 4],
        [2, 6, 7],
        [2, 7, 3],
        [0, 4, 6],
        [0, 6, 2],
    ]
    triangles = np.array([*faces, [1, 3, 7], [1, 7, 5]], np.int32)
    other = triangles + 8
    other[0] = other[0, ::-1]
    cubes = Building(
        (Element("one", "", "IfcWall", 0, "", ""), Element("other", "", "IfcWall", 0, "", "")),
        (Storey("0", 0.0),),
        ("",),
        np.concatenate([corners, corners + 500.0]),
        np.concatenate([triangles, other]),
        np.repeat(np.arange(2, dtype=np.int32), 12),
        np.zeros(24, np.int32),
    )
    for view in (Plan("0"), Axonometric("ne", line_settings=LineSettings(hidden=True))):
        draw(cubes, view)
        picture_of(cubes, view, Appearance("shaded"), Window(10.0, 10.0, 0.001, (0.0, 0.0)), 25.4)


if __name__ == "__main__":
    warm()
