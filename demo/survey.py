"""The surveyor's drawing of the demo's site, as it came: a DXF in metres of a grid of its own."""

from __future__ import annotations

import io
import math
import random
from itertools import pairwise

import ezdxf

#: Where the zero of the building lies on the surveyor's grid, m.
ZERO = (412.0, 268.0)
#: The boundary, the path and the hedge, from the zero of the building, m.
BOUNDARY = ((-13.5, -9.5), (24.0, -9.5), (27.5, 2.0), (25.5, 14.5), (-9.0, 15.5), (-14.5, 4.0))
PATH = ((26.5, -4.5), (20.0, -5.0), (17.0, -3.9), (16.2, -2.2))
HEDGE = ((-8.0, 14.2), (2.0, 13.6), (9.0, 14.1), (24.5, 13.4))
#: Heights of points on the ground, m above the sea.
HEIGHTS = (
    (-11.0, -7.0, 3.42), (-3.0, -8.2, 3.28), (8.0, -8.0, 3.15), (20.5, -8.4, 2.96), (24.0, 4.5, 3.38),
    (12.0, 11.5, 3.81), (-1.0, 11.8, 3.92), (-11.5, 9.0, 3.87),
)  # fmt: skip


def survey() -> bytes:
    """The file, the same each time."""
    doc = ezdxf.new("R2010", units=6)
    space = doc.modelspace()
    for layer in ("Boundary", "Path", "Hedge", "Heights", "Marsh"):
        doc.layers.add(layer)

    def at(x: float, y: float) -> tuple[float, float]:
        return ZERO[0] + x, ZERO[1] + y

    space.add_lwpolyline([at(*p) for p in BOUNDARY], close=True, dxfattribs={"layer": "Boundary"})
    for p in BOUNDARY:
        space.add_circle(at(*p), 0.25, dxfattribs={"layer": "Boundary"})
    for side in (-0.7, 0.7):
        space.add_spline([(*at(x, y + side), 0) for x, y in PATH], dxfattribs={"layer": "Path"})
    uneven = random.Random(5)
    hedge = [
        at(x + t * (u - x), y + t * (v - y) + uneven.uniform(-0.28, 0.28))
        for (x, y), (u, v) in pairwise(HEDGE)
        for t in (0.0, 0.2, 0.4, 0.6, 0.8)
    ]
    for side in (-0.5, 0.5):
        space.add_lwpolyline([(x, y + side) for x, y in hedge], dxfattribs={"layer": "Hedge"})
    mark = doc.blocks.new("HEIGHT")
    mark.add_line((-0.25, 0), (0.25, 0))
    mark.add_line((0, -0.25), (0, 0.25))
    for x, y, height in HEIGHTS:
        space.add_blockref("HEIGHT", at(x, y), dxfattribs={"layer": "Heights"})
        words = space.add_text(f"{height:.2f}", height=0.35, dxfattribs={"layer": "Heights"})
        words.set_placement(at(x + 0.4, y + 0.15))
    for _ in range(26):
        x, y = uneven.uniform(-13, 22), uneven.uniform(-9, -7.2)
        for lean in (-0.35, 0.0, 0.35):
            way = math.pi / 2 + lean
            tip = x + 0.45 * math.cos(way), y + 0.45 * math.sin(way)
            space.add_line(at(x, y), at(*tip), dxfattribs={"layer": "Marsh"})
    out = io.StringIO()
    doc.write(out)
    return out.getvalue().encode()
