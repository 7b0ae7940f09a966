"""Pictures as they are drawn: those of pixels as one, vector ones by their outlines; whole or cropped."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.geometry.boxes import Box, Point
from drafting.geometry.clipping import areas_within, lines_within
from drafting.geometry.polylines import Polylines
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
        line = (*ring, ring[0]) if outline.closed else ring
        for part in lines_within(Polylines.of([line]), window.corners):
            yield tuple((x, y) for x, y in part.tolist()), False


def _cropped_area(rings: Rings, window: Box) -> Rings:
    """What of an area, even-odd, lies within a window."""
    parts = areas_within(Polylines.of(rings), window.corners)
    return tuple(tuple((x, y) for x, y in ring.tolist()) for part in parts for ring in part)
