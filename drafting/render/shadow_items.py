"""Areas of shadow as they are drawn: filled, or hatched."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from shapely import Polygon, get_parts, make_valid

from drafting.render.items import SHADOWS, Fill, Hatched, Path, Point
from drafting.sheets.viewport import Viewport
from drafting.styles.hatches import HATCHES, HatchName, hatch_lines
from drafting.styles.pens import Pen

#: How shadow is hatched: more openly than what is cut.
HATCH: HatchName = "diagonal"
SPACING, WIDTH = 0.9, 0.13


def shadow_items(viewport: Viewport) -> Iterator[Fill | Hatched]:
    """The areas of shadow that are seen through a viewport, within its outline."""
    style = viewport.appearance.areas
    if viewport.shadow is None or style.of == "none":
        return
    kinds = viewport.shadow if style.of == "both" else viewport.shadow[:1]
    outline = Polygon(viewport.outline)
    for kind in kinds:
        for area in kind:
            rings = [[viewport.to_paper(u, v) for u, v in ring] for ring in area]
            seen = make_valid(Polygon(rings[0], rings[1:])).intersection(outline)
            for part in get_parts(seen):
                if isinstance(part, Polygon) and not part.is_empty:
                    yield _item(part, viewport)


def _item(area: Polygon, viewport: Viewport) -> Fill | Hatched:
    style = viewport.appearance.areas
    rings: tuple[tuple[Point, ...], ...] = tuple(
        tuple((float(x), float(y)) for x, y in ring.coords[:-1]) for ring in (area.exterior, *area.interiors)
    )
    if not style.hatched:
        return Fill(rings, style.colour, SHADOWS, viewport.id, style.opacity / 100)
    pen = Pen(WIDTH, style.colour)
    # All areas of a drawing are hatched by one point, so that lines run on from one to the next.
    origin = np.array(viewport.to_paper(0.0, 0.0))
    arrays = [np.array(ring) for ring in rings]
    lines = (
        Path(((ax, ay), (bx, by)), pen, SHADOWS, viewport.id)
        for family in HATCHES[HATCH]
        for (ax, ay), (bx, by) in hatch_lines(family, SPACING, 0.0, [arrays], origin).tolist()
    )
    return Hatched(tuple(lines), rings, HATCH, SPACING, pen, SHADOWS, viewport.id)
