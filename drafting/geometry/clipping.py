"""What of lines and areas lies within an outline: the rest is not there, in any file."""

from __future__ import annotations

import numpy as np
import shapely
from numpy.typing import ArrayLike, NDArray

from drafting.geometry.polylines import Floats, Polylines

#: Parts shorter than this are where a line only touches the outline, in the unit of the lines.
_TOUCH = 1e-9


def crossing(lines: Polylines, outline: ArrayLike) -> NDArray[np.bool_]:
    """(m,) which polylines may leave a polygon: none that is not told to lies beyond it.

    Args:
        outline: (n, 2) the corners of the polygon.
    """
    if not len(lines):
        return np.zeros(0, bool)
    corners = np.asarray(outline, float)
    low, high = corners.min(axis=0), corners.max(axis=0)
    least, greatest = lines.bounds()
    if is_upright(corners):
        return np.asarray(~((least >= low) & (greatest <= high)).all(axis=1))
    boxes = shapely.box(least[:, 0], least[:, 1], greatest[:, 0], greatest[:, 1])
    return np.asarray(~shapely.covers(_area(corners), boxes))


def is_upright(corners: Floats) -> bool:
    """Whether an outline is a rectangle along the axes.

    Args:
        corners: (n, 2).
    """
    return len(corners) == 4 and all(len(np.unique(corners[:, k].round(6))) == 2 for k in (0, 1))


def widened(outline: ArrayLike, by: float) -> Floats:
    """The corners (n, 2) of a polygon that is wider on all sides.

    >>> widened([(0, 0), (9, 0), (9, 9), (0, 9)], 1.0).min(axis=0)
    array([-1., -1.])
    """
    wider = shapely.buffer(_area(outline), by, join_style="mitre")
    return np.asarray(shapely.get_coordinates(shapely.get_exterior_ring(wider))[:-1])


def lines_within(lines: Polylines, outline: ArrayLike) -> Polylines:
    """Those parts of polylines that lie within a polygon, in the order of the lines.

    Args:
        lines: of two dimensions.
        outline: (n, 2) the corners of the polygon.

    >>> lines_within(Polylines.of([[(-5, 1), (5, 1)]]), [(0, 0), (9, 0), (9, 9), (0, 9)]).points
    array([[0., 1.],
           [5., 1.]])
    """
    if not len(lines):
        return lines
    cut = crossing(lines, outline)
    if not cut.any():
        return lines
    area = _area(outline)
    kept: list[Floats] = []
    for k, line in enumerate(lines):
        if not cut[k]:
            kept.append(line)
            continue
        # A ring that is cut open where it begins is one line all the same.
        seen = _lines_of(shapely.intersection(area, shapely.LineString(line)))
        parts = shapely.get_parts(shapely.line_merge(seen))
        kept += [shapely.get_coordinates(part) for part in parts if part.length > _TOUCH]
    return Polylines.of(kept)


def areas_within(rings: Polylines, outline: ArrayLike) -> list[list[Floats]]:
    """What of an area, even-odd, lies within a polygon: of each part its outline and then its holes, (n, 2)
    each and not closed.

    Args:
        outline: (n, 2) the corners of the polygon.
    """
    area = shapely.Polygon()
    for ring in rings:
        if len(ring) > 2:
            area = area.symmetric_difference(shapely.make_valid(shapely.Polygon(ring)))
    parts = shapely.get_parts(area.intersection(_area(outline)))
    return [
        [shapely.get_coordinates(ring)[:-1] for ring in (part.exterior, *part.interiors)]
        for part in parts
        if part.geom_type == "Polygon"
    ]


def _area(outline: ArrayLike) -> shapely.Geometry:
    return shapely.make_valid(shapely.Polygon(np.asarray(outline, float)))


def _lines_of(geometry: shapely.Geometry) -> shapely.Geometry:
    """The lines among what a geometry is made of, for some touch the outline in a point only."""
    parts = shapely.get_parts(geometry)
    return shapely.MultiLineString(
        [part for part in parts if part.geom_type == "LineString" and len(part.coords)]
    )
