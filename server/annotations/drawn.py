"""What annotation is attached to: the drawings that it stands on, and the corners of elements in them."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from typing import Any

import numpy as np

from drafting.annotation.anchors import ElementCorners
from drafting.annotation.corners import Corners
from drafting.annotation.outer_chains import GridLine
from drafting.annotation.pieces import CornersOf
from drafting.linework.codec import decode
from drafting.linework.model import Linework as CoreLinework
from server.common import storage
from server.views.models import Linework

#: As many drawings are kept ready as a large sheet and its neighbours have.
MAX_KEPT = 24


@lru_cache(maxsize=MAX_KEPT)
def _read(file: str) -> tuple[CoreLinework, Corners]:
    """A drawing and its corners by the hash of its file; what lies under a hash never changes."""
    linework = decode(storage.path_of(file).read_bytes())
    return linework, Corners(linework)


def drawn_linework(drawing: Linework) -> tuple[CoreLinework, Corners]:
    """A drawing as the core has it, and its corners."""
    return _read(drawing.file)


def corners_of(drawing: Linework | None) -> CornersOf:
    """What finds the corners of an element in a drawing; the file is read when the first is asked for."""

    def found(element: str) -> ElementCorners | None:
        return _read(drawing.file)[1].of(element) if drawing is not None else None

    return found


def is_upright(drawing: Linework | None) -> bool:
    """Whether heights are seen in a drawing; in one that is not there yet they may be."""
    return drawing is None or not drawing.axes or bool(drawing.axes["up"][2] > 1 - 1e-6)


def grid_seen(grid: Sequence[Any], drawing: Linework) -> list[GridLine]:
    """The lines of a building's grid, as its version tells them, in u and v of a drawing from above."""
    axes = {name: np.array(value) for name, value in drawing.axes.items()}

    def seen(x: float, y: float) -> tuple[float, float]:
        away = np.array([x, y, 0.0]) - axes["origin"]
        return float(away @ axes["right"]), float(away @ axes["up"])

    return [(line["name"], seen(*line["ends"][0]), seen(*line["ends"][1])) for line in grid]
