"""Pictures as they are drawn: those of pixels as one, vector ones by their outlines; whole or cropped."""

from __future__ import annotations

from collections.abc import Iterator

import shapely

from drafting.geometry.boxes import Box, Point
from drafting.render.items import Fill, Image, Path
from drafting.sheets.picture import Outline, Picture
from drafting.styles.pens import Pen

Rings = tuple[tuple[Point, ...], ...]


def picture_items(
    picture: Picture, box: Box, layer: str, window: Box | None = None, source: str = ""
) -> Iterator[Path | Fill | Image]:
    """A picture that fills a box.

    Args:
        window: what is seen of it; all where there is none.
        source: the viewport that it belongs to.
    """
    if picture.form != "vector":
        yield Image(picture.key, box, layer, window=window, viewport=source)
        return
    scale = box.width / picture.width
    for outline in picture.outlines:
        rings = tuple(
            tuple((box.x + u * scale, box.y + v * scale) for u, v in ring) for ring in outline.rings
        )
        if outline.fill:
            kept = _cropped_area(rings, window) if window else rings
            if kept:
                yield Fill(kept, outline.fill, layer, source)
        if outline.stroke:
            pen = Pen(max(outline.width * scale, 0.05), outline.stroke)
            for line, closed in _lines(outline, rings, window):
                yield Path(line, pen, layer, source, closed=closed)


def _lines(outline: Outline, rings: Rings, window: Box | None) -> Iterator[tuple[tuple[Point, ...], bool]]:
    for ring in rings:
        if window is None:
            yield ring, outline.closed
            continue
        line = shapely.LineString((*ring, ring[0]) if outline.closed else ring)
        for part in shapely.get_parts(_clipped(line, window)):
            if part.geom_type == "LineString":
                yield tuple((x, y) for x, y in part.coords), False


def _cropped_area(rings: Rings, window: Box) -> Rings:
    """What of an area, even-odd, lies within a window."""
    area = shapely.Polygon()
    for ring in rings:
        if len(ring) > 2:
            area = area.symmetric_difference(shapely.make_valid(shapely.Polygon(ring)))
    kept = [part for part in shapely.get_parts(_clipped(area, window)) if part.geom_type == "Polygon"]
    return tuple(
        tuple((x, y) for x, y in ring.coords[:-1])
        for part in kept
        for ring in (part.exterior, *part.interiors)
    )


def _clipped(geometry: shapely.Geometry, window: Box) -> shapely.Geometry:
    return geometry.intersection(shapely.box(window.x, window.y, window.right, window.top))
