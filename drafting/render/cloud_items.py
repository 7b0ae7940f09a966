"""Clouds as they are drawn: a ring of arcs, and a triangle with the revision at its upper right corner."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.annotation.clouds import Cloud, cloud_box, cloud_ring
from drafting.annotation.pieces import PlacedPiece
from drafting.render.items import Fill, Path, Text
from drafting.styles.lettering import fit
from drafting.styles.pens import INK, PAPER, Pen

LAYER = "Clouds"
CLOUD_PEN, MARK_PEN = Pen(0.5, "#9c3f24"), Pen(0.25, "#9c3f24")
#: The triangle's height and half its base; the height of what it says, mm.
_HEIGHT, _HALF, _SIZE = 7.5, 4.6, 2.0


def cloud_items(placed: PlacedPiece, cloud: Cloud, source: str) -> Iterator[Path | Fill | Text]:
    """The ring of a cloud, and the mark of its revision."""
    box = cloud_box(placed.points[0], placed.points[1])
    yield Path(cloud_ring(box), CLOUD_PEN, LAYER, source, closed=True)
    if cloud.revision:
        x, y = box.right + 1.0, box.top + 1.0
        ring = (x - _HALF, y), (x + _HALF, y), (x, y + _HEIGHT)
        yield Fill((ring,), PAPER, LAYER, source)
        yield Path(ring, MARK_PEN, LAYER, source, closed=True)
        words, size = fit(cloud.revision, _SIZE, _HALF * 1.25)
        yield Text((x, y + 1.1), words, size, INK, anchor="middle", bold=True, layer=LAYER, viewport=source)
