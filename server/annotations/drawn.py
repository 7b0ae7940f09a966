"""What annotation is attached to: the drawings that it stands on, and the corners of elements in them."""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache

from drafting.annotation.anchors import ElementCorners
from drafting.annotation.corners import Corners
from drafting.annotation.piece import CornersOf
from drafting.annotation.reference_lines import GRID, LEVEL, GridLine, line_corners, reference_lines
from drafting.linework.codec import decode
from drafting.linework.model import Linework as CoreLinework
from server.buildings.models import ModelVersion
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


def corners_of(
    drawing: Linework | None,
    grid: Sequence[GridLine] = (),
    storeys: Sequence[tuple[str, float]] = (),
) -> CornersOf:
    """What finds the corners of an element in a drawing, or the ends of a grid line or a storey level; the
    file is read when the first element is asked for."""
    lines = reference_lines(grid, storeys, drawing.axes) if drawing is not None and drawing.axes else {}

    def found(element: str) -> ElementCorners | None:
        if drawing is None:
            return None
        if element.startswith((GRID, LEVEL)):
            return line_corners(lines[element]) if element in lines else None
        return _read(drawing.file)[1].of(element)

    return found


def lines_of(version: ModelVersion | None) -> tuple[list[GridLine], list[tuple[str, float]]]:
    """The grid lines and the storeys of a building, as its version tells them."""
    facts = version.facts if version else {}
    grid = [(line["name"], tuple(line["ends"][0]), tuple(line["ends"][1])) for line in facts.get("grid", ())]
    return grid, [(storey["name"], storey["elevation"]) for storey in facts.get("storeys", ())]


def is_upright(drawing: Linework | None) -> bool:
    """Whether heights are seen in a drawing; in one that is not there yet they may be."""
    return drawing is None or not drawing.axes or bool(drawing.axes["up"][2] > 1 - 1e-6)
