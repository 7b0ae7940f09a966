"""What annotation is attached to: the drawings that it stands on, and the corners of elements in them."""

from __future__ import annotations

from functools import lru_cache

from drafting.annotation.anchors import ElementCorners
from drafting.annotation.corners import Corners
from drafting.annotation.pieces import CornersOf
from drafting.linework.codec import decode
from server.common import storage
from server.views.models import Linework

#: As many drawings are kept ready as a large sheet and its neighbours have.
MAX_KEPT = 24


@lru_cache(maxsize=MAX_KEPT)
def _corners_in(file: str) -> Corners:
    """The corners of a drawing by the hash of its file; what lies under a hash never changes."""
    return Corners(decode(storage.path_of(file).read_bytes()))


def corners_of(drawing: Linework | None) -> CornersOf:
    """What finds the corners of an element in a drawing; the file is read when the first is asked for."""

    def found(element: str) -> ElementCorners | None:
        return _corners_in(drawing.file).of(element) if drawing is not None else None

    return found


def is_upright(drawing: Linework | None) -> bool:
    """Whether heights are seen in a drawing."""
    return bool(drawing and drawing.axes and drawing.axes["up"][2] > 1 - 1e-6)
