"""Tags as they are drawn: a number in an outline with round ends on paper of its own, a size below it."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.tags import PAD, SIZE, SMALL, Tag, label_size
from drafting.geometry.boxes import Box, Point
from drafting.render.items import Fill, Path, Text
from drafting.styles.lettering import LEADING
from drafting.styles.pens import INK, PAPER, Pen

LAYER = "Tags"
OUTLINE = Pen(0.18)
_STEPS = 10


def tag_items(placed: PlacedPiece, tag: Tag, source: str) -> Iterator[Path | Fill | Text]:
    """The label of a door or a window."""
    x, y = placed.points[0][0] + tag.offset[0], placed.points[0][1] + tag.offset[1]
    wide, high = label_size(placed.label)
    ends, outline = label_size(placed.label[:1])
    top = y + high / 2
    ring = _round_ended(Box(x - ends / 2, top - outline, ends, outline))
    if len(placed.label) > 1:
        below = Box(x - wide / 2, y - high / 2, wide, high - outline)
        yield Fill((below.corners,), PAPER, LAYER, source)
    yield Fill((ring,), PAPER, LAYER, source)
    yield Path(ring, OUTLINE, LAYER, source, closed=True)
    at = x, top - PAD - SIZE
    number, *rest = placed.label
    yield Text(at, number, SIZE, INK, anchor="middle", bold=True, layer=LAYER, viewport=source)
    for words in rest:
        low = x, top - outline - SMALL * LEADING + (LEADING - 1) * SMALL / 2
        yield Text(low, words, SMALL, INK, anchor="middle", layer=LAYER, viewport=source)


def _round_ended(box: Box) -> tuple[Point, ...]:
    """A box whose two ends are half circles."""
    r = box.height / 2
    angles = [math.pi * k / _STEPS for k in range(_STEPS + 1)]
    right = [(box.right - r + r * math.sin(a), box.y + r - r * math.cos(a)) for a in angles]
    left = [(box.x + r - r * math.sin(a), box.y + r + r * math.cos(a)) for a in angles]
    return (*right, *left)
