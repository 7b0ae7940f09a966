"""What is written before flights and ramps."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from drafting.render.items import Fill, Text
from drafting.sheets.climb_tags import ClimbTag
from drafting.styles.lettering import text_width
from drafting.styles.pens import INK, PAPER

LAYER = "Stairs and ramps"
#: Lettering; between it and the foot of the flight, and kept clear about it; mm.
SIZE, GAP, MARGIN = 2.0, 1.2, 0.4


def climb_items(tags: Iterable[ClimbTag], source: str) -> Iterator[Fill | Text]:
    """The words of each, level, clear of the flight that they stand before."""
    for tag in tags:
        half = text_width(tag.text, SIZE) / 2
        away = abs(tag.way[0]) * half + abs(tag.way[1]) * SIZE / 2 + GAP
        x, y = tag.foot[0] - tag.way[0] * away, tag.foot[1] - tag.way[1] * away
        (left, right), (low, high) = (
            (x - half - MARGIN, x + half + MARGIN), (y - SIZE / 2 - MARGIN, y + SIZE / 2 + MARGIN),
        )  # fmt: skip
        yield Fill((((left, low), (right, low), (right, high), (left, high)),), PAPER, LAYER, source)
        yield Text((x, y - SIZE / 2), tag.text, SIZE, INK, anchor="middle", layer=LAYER, viewport=source)
