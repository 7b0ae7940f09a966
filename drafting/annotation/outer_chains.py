"""Dimensioning a plan by itself: the chains outside the building that a builder reads first.

Nearest to the building stand the faces and openings of its outer walls, then the walls' faces alone, then the
grid, then the whole (building practice; ISO 129-1 has shorter lengths within longer ones).
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
import shapely
from shapely import Polygon
from shapely.geometry.base import BaseGeometry

from drafting.annotation.anchors import ON, SAME, Anchor, described
from drafting.annotation.corners import Corners
from drafting.annotation.dimensions import LINES_APART, MAX_POINTS, Dimension, StyleName
from drafting.annotation.reference_lines import GRID, GridLine
from drafting.errors import SheetError
from drafting.geometry.boxes import Point
from drafting.linework.model import Linework

Side = Literal["bottom", "left", "top", "right"]
SIDES: tuple[Side, ...] = get_args(Side)
#: What makes the walls of a building (ISO 16739-1); a file without any of them has all of its elements for
#: that.
WALLS = ("IfcWall", "IfcWallStandardCase", "IfcWallElementedCase", "IfcColumn", "IfcCurtainWall")
#: Openings in outer walls are narrower than twice this, and notches of the outline wider; mm.
CLOSED_OVER = 2_500.0
#: Between the building and its first chain, paper mm.
FIRST = 10.0
#: How long extension lines are: what they come from is seen, and they cross nothing on their way; paper mm.
SHORT = 6.0
#: Whether there is wall to one side of a point on its face is looked at so far beside and within it; mm.
BESIDE = 6.0
#: Faces lie along a side where their normal differs by less than about a degree; as a cosine. The lengths of
#: others would be foreshortened.
FACING = 0.9998


@dataclass(frozen=True)
class _PlanSide:
    """A side of the plan: the axis that is measured along (0 for u), and the way outward along the other."""

    name: Side
    along: int
    outward: int

    @property
    def normal(self) -> Point:
        return (0.0, float(self.outward)) if self.along == 0 else (float(self.outward), 0.0)


_SIDES: dict[Side, _PlanSide] = {
    "bottom": _PlanSide("bottom", 0, -1),
    "left": _PlanSide("left", 1, -1),
    "top": _PlanSide("top", 0, 1),
    "right": _PlanSide("right", 1, 1),
}


def outer_chains(
    linework: Linework,
    corners: Corners,
    sides: Sequence[Side],
    ratio: float,
    grid: Sequence[GridLine] = (),
    style: StyleName = "millimetres",
) -> list[Dimension]:
    """The chains outside a plan, on some of its sides, from the building outward. Each has a series, by which
    a later run finds it again: its side, and its place from the building outward.

    Args:
        ratio: paper over real of the viewport in which they are to stand at their distances.
        grid: name and ends of the building's grid lines, in u and v, mm.

    Raises:
        SheetError: nothing is cut in this drawing, or no wall runs along its sides.
    """
    walls = cut_walls(linework)
    solid = _solid(linework, walls)
    outline = _outline(solid)
    if outline is None:
        raise SheetError("Nothing is cut in this drawing. Walls are dimensioned in plans and sections.")
    found = []
    for name in sides:
        side = _SIDES[name]
        faces = _faces(outline, side)
        anchors = [
            described(place, linework.elements[wall], known)
            for wall in sorted(walls)
            if (known := corners.of(linework.elements[wall])) is not None
            for place in known.places
            if any(_lies_on(place, face) for face in faces) and _ends_there(solid, place, side)
        ]
        openings = _in_order(anchors, side)
        steps = _at(openings, [end for face in faces for end in face], side)
        axes = _in_order(list(_grid_ends(grid, outline, side)), side)
        if len(_at(axes, [anchor.at for anchor in steps], side)) == len(axes):
            # Where the grid lies in the walls' faces it says nothing more.
            axes = []
        whole = [openings[0], openings[-1]] if len(openings) > 1 else []
        series = _series(side, [openings, steps, axes, whole])
        found += list(_placed(side, series, linework, ratio, style))
    if not found:
        raise SheetError(
            "No outer wall on these sides runs straight across or up the drawing. Dimension them by hand, "
            "along the points."
        )
    return found


def cut_walls(linework: Linework) -> set[int]:
    """The numbers of the elements that are cut and make the walls."""
    cut = set(linework.packed_regions.element.tolist())
    walls = {k for k in cut if linework.classes and linework.classes[k] in WALLS}
    return walls or cut


def _solid(linework: Linework, walls: set[int]) -> BaseGeometry:
    """All that is cut of the walls, as one."""
    regions = linework.packed_regions
    areas = []
    for k in np.flatnonzero(np.isin(regions.element, list(walls))).tolist():
        rings = [regions.rings[ring] for ring in range(regions.starts[k], regions.starts[k + 1])]
        areas.append(shapely.make_valid(Polygon(rings[0], rings[1:])))
    together = shapely.union_all(shapely.set_precision(np.array(areas), 0.01)) if areas else Polygon()
    shapely.prepare(together)
    return together


def _outline(solid: BaseGeometry) -> Polygon | None:
    """The outline of the walls without their openings: the largest, where there are several buildings."""
    grown = solid.buffer(CLOSED_OVER / 2, join_style="mitre")
    closed = grown.buffer(-CLOSED_OVER / 2, join_style="mitre")
    parts = [part for part in getattr(closed, "geoms", [closed]) if isinstance(part, Polygon)]
    largest = max(parts, key=lambda part: part.area, default=None)
    return None if largest is None or largest.is_empty else largest


def _ends_there(solid: BaseGeometry, at: Point, side: _PlanSide) -> bool:
    """Whether a wall's face ends at a point on it: not where its layers do, or where another meets it."""
    inward = np.array(at) - np.array(side.normal) * BESIDE
    along = np.array([1.0, 0.0] if side.along == 0 else [0.0, 1.0]) * BESIDE
    before, after = (bool(solid.covers(shapely.Point(inward + way * along))) for way in (-1, 1))
    return before != after


def _faces(outline: Polygon, side: _PlanSide) -> list[tuple[Point, Point]]:
    """The stretches of an outline that look to a side, from end to end."""
    ring = np.asarray(shapely.normalize(outline).exterior.coords)
    if not shapely.is_ccw(shapely.LinearRing(ring)):
        ring = ring[::-1]
    found = []
    for (ax, ay), (bx, by) in zip(ring[:-1].tolist(), ring[1:].tolist(), strict=True):
        length = float(np.hypot(bx - ax, by - ay))
        # Anticlockwise, the outside lies to the right.
        facing = ((by - ay) * side.normal[0] - (bx - ax) * side.normal[1]) / max(length, 1e-9)
        if length >= SAME and facing > FACING:
            found.append(((ax, ay), (bx, by)))
    return found


def _lies_on(at: Point, face: tuple[Point, Point]) -> bool:
    return bool(shapely.LineString(face).distance(shapely.Point(at)) < ON)


def _in_order(anchors: Sequence[Anchor], side: _PlanSide) -> list[Anchor]:
    """Anchors along a side, one for each place."""
    kept: list[Anchor] = []
    for anchor in sorted(anchors, key=lambda a: (a.at[side.along], -side.outward * a.at[1 - side.along])):
        if not kept or anchor.at[side.along] - kept[-1].at[side.along] >= SAME:
            kept.append(anchor)
    return kept


def _at(anchors: Sequence[Anchor], ends: Sequence[Point], side: _PlanSide) -> list[Anchor]:
    """Those anchors that lie where the outline has its ends."""
    places = np.array([end[side.along] for end in ends])
    return [a for a in anchors if len(places) and float(np.abs(places - a.at[side.along]).min()) < ON]


def _grid_ends(grid: Sequence[GridLine], outline: Polygon, side: _PlanSide) -> Iterator[Anchor]:
    """Where the lines of the grid that run across a side meet it, on these lines."""
    low, high = np.array(outline.bounds[:2]), np.array(outline.bounds[2:])
    for name, a, b in grid:
        if abs(a[side.along] - b[side.along]) < SAME and abs(a[1 - side.along] - b[1 - side.along]) > SAME:
            at = a[side.along]
            if low[side.along] - ON <= at <= high[side.along] + ON:
                edge = float((low if side.outward < 0 else high)[1 - side.along])
                yield Anchor((at, edge) if side.along == 0 else (edge, at), GRID + name)


def _series(side: _PlanSide, chains: Sequence[Sequence[Anchor]]) -> list[list[Anchor]]:
    """The chains that say something of their own; of two alike the outer."""
    kept: list[list[Anchor]] = []
    for chain in reversed(chains):
        places = [anchor.at[side.along] for anchor in chain]
        same = any(
            len(places) == len(other)
            and all(abs(x - a.at[side.along]) < ON for x, a in zip(places, other, strict=True))
            for other in kept
        )
        if 1 < len(chain) <= MAX_POINTS and not same:
            kept.append(list(chain))
    return kept[::-1]


def _placed(
    side: _PlanSide, chains: Sequence[Sequence[Anchor]], linework: Linework, ratio: float, style: StyleName
) -> Iterator[Dimension]:
    """Chains at their distances from all that is drawn of the building."""
    extents = linework.own_extents or (0.0, 0.0, 0.0, 0.0)
    edge = extents[(1 - side.along) + (2 if side.outward > 0 else 0)]
    # To the left of the way along v is the way against u.
    left = 1 if side.along == 0 else -1
    for k, chain in enumerate(chains):
        away = side.outward * (edge - chain[0].at[1 - side.along]) * ratio + FIRST + k * LINES_APART
        yield Dimension(
            tuple(chain),
            "horizontal" if side.along == 0 else "vertical",
            round(left * side.outward * away, 1),
            SHORT,
            style,
            series=f"{side.name} {k + 1}",
        )
