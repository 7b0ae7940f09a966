"""Shapes as they are drawn: filled, hatched, outlined."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from drafting.annotation.pieces import PlacedPiece
from drafting.annotation.shapes import Shape, outline
from drafting.render.items import Fill, Hatched, Item, Path
from drafting.styles.hatches import HATCHES, hatch_lines
from drafting.styles.patterns import PATTERNS
from drafting.styles.pens import Pen

LAYER = "Shapes"
HATCH_WIDTH = 0.13
#: No more lines of a hatch are drawn: one so dense is a fill.
MAX_HATCH_LINES = 4_000


def shape_items(placed: PlacedPiece, shape: Shape, source: str) -> Iterator[Item]:
    """The fill of a shape, its hatch, and its line over both."""
    ring = tuple(placed.to_paper(point) for point in outline(shape, placed.location.at))
    if shape.is_area and shape.fill:
        yield Fill((ring,), shape.fill, LAYER, source, shape.opacity / 100)
    if shape.is_area and shape.hatch:
        pen = Pen(HATCH_WIDTH, shape.colour)
        lines = [
            Path(((ax, ay), (bx, by)), pen, LAYER, source)
            for family in HATCHES[shape.hatch]
            for (ax, ay), (bx, by) in hatch_lines(
                family, shape.spacing, 0.0, [[np.array(ring)]], np.array(ring[0])
            )[:MAX_HATCH_LINES].tolist()
        ]
        yield Hatched(tuple(lines), (ring,), shape.hatch, shape.spacing, pen, LAYER, source)
    if shape.width:
        pen = Pen(shape.width, shape.colour, PATTERNS[shape.pattern])
        yield Path(ring, pen, LAYER, source, closed=shape.is_area)
