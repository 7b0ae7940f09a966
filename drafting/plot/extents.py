"""What items of a display list cover on their sheet."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from drafting.plot.display import Drawing, Fill, Image, Path, Text
from drafting.plot.lettering import text_width
from drafting.sheets.viewport import Box


def bounds_of(item: Path | Fill | Text | Image | Drawing) -> Box:
    """What an item covers on its sheet, without the half width of its line."""
    if isinstance(item, Image):
        return item.box
    if isinstance(item, Text):
        width = text_width(item.text, item.size, item.bold)
        left = {"start": 0.0, "middle": width / 2, "end": width}[item.anchor]
        return Box(item.at[0] - left, item.at[1], width, item.size)
    if isinstance(item, Drawing):
        points = np.array(item.clip)
    else:
        points = item.points if isinstance(item, Path) else item.rings[0]
    low, high = points.min(axis=0), points.max(axis=0)
    return Box(float(low[0]), float(low[1]), float(high[0] - low[0]), float(high[1] - low[1]))


def union(boxes: Iterable[Box]) -> Box:
    """The least box that holds some boxes, of which there is one at least."""
    boxes = list(boxes)
    x, y = min(b.x for b in boxes), min(b.y for b in boxes)
    return Box(x, y, max(b.right for b in boxes) - x, max(b.top for b in boxes) - y)


def common(a: Box, b: Box) -> Box | None:
    """What two boxes share; None where that is no more than an edge."""
    if not a.meets(b):
        return None
    x, y = max(a.x, b.x), max(a.y, b.y)
    return Box(x, y, min(a.right, b.right) - x, min(a.top, b.top) - y)
