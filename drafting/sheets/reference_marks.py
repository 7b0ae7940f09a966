"""Marks: where other views of a set lie in the one that is seen through a viewport, and where they stand in
the set.

All of it is derived: from the views' descriptions, from the axes of the drawing, and from what is placed
    where.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from shapely import LineString, Polygon
from shapely.geometry.base import BaseGeometry

from drafting.geometry.boxes import Point
from drafting.sheets.viewport import Viewport
from drafting.styles.lengths import feet_and_inches
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.line_settings import DEFAULT_LINE_SETTINGS
from drafting.views.section import Section
from drafting.views.shown import Shown
from drafting.views.spec import AnyView

#: Radius of the bubble that carries a mark's numbers, and how near to the outline it may come; paper mm.
BUBBLE, CLEAR = 5.0, 1.0
#: Radius of the bubble of a grid line; mm.
GRID_BUBBLE = 3.5
#: A section's line shorter than this on paper could not be seen apart from its own arrows; mm.
MIN_LINE = 12.0
#: How far apart two elevation marks are set that would cover each other; mm.
BESIDE = 2 * BUBBLE + 6.0
#: Cosines that differ from one or zero by less are assumed for it.
_STRAIGHT = 1e-6

#: A quarter of an inch, mm.
_QUARTER = 25.4 / 4

Axis = tuple[float, float, float]


@dataclass(frozen=True)
class Reference:
    """Where a view stands in the set: the number of its drawing and of its sheet; blank for one not placed
    yet."""

    drawing: str = ""
    sheet: str = ""


@dataclass(frozen=True)
class Subject:
    """A view that may be marked on others. `toward` is the way to its viewer, in the model's axes."""

    id: str
    spec: AnyView
    toward: Axis
    reference: Reference = Reference()


@dataclass(frozen=True)
class MarkedView:
    """A viewport, the view that is seen through it, and the axes of its drawing (origin in mm)."""

    viewport: Viewport
    view: str
    spec: AnyView
    right: Axis
    up: Axis
    origin: Axis

    def to_paper(self, point: Axis) -> Point:
        """Where a point of the model lies on the sheet."""
        away = tuple(p - o for p, o in zip(point, self.origin, strict=True))
        return self.viewport.to_paper(_dot(away, self.right), _dot(away, self.up))

    def way(self, direction: Axis) -> Point:
        """A direction of the model as it runs on paper; shorter where it leans out of it."""
        turn = math.radians(self.viewport.turn)
        u, v = _dot(direction, self.right), _dot(direction, self.up)
        return u * math.cos(turn) - v * math.sin(turn), u * math.sin(turn) + v * math.cos(turn)


@dataclass(frozen=True)
class Mark:
    """The mark of one view on another. All of it on paper, mm.

    Attributes:
        subject: the id of the view that is marked.
        reference: what its bubbles say.
        kind: section, elevation or detail.
        line: a section's line, or the closed outline of a detail.
        bubbles: the middles of its bubbles.
        sight: the way the marked view is looked at, a unit vector; none for a detail.
        through: whether a section's line is drawn from end to end, or only its ends.
    """

    subject: str
    reference: Reference
    kind: str
    line: tuple[Point, ...]
    bubbles: tuple[Point, ...]
    sight: Point | None
    through: bool = False


@dataclass(frozen=True)
class Level:
    """A storey's level: its height on paper, the ends of its line, and what stands on it."""

    y: float
    left: float
    right: float
    name: str
    height: str


@dataclass(frozen=True)
class GridMark:
    """A line of the building's grid on paper, and the middle of the bubble with its name beyond its first
    end; mm."""

    name: str
    line: tuple[Point, Point]
    bubble: Point


def grid_in(seen: MarkedView, lines: Sequence[tuple[str, Point, Point]]) -> list[GridMark]:
    """The lines of a grid (name and ends, mm) that are seen: from above, or from the side by looking along
    them."""
    if not seen.spec.to_scale:
        return []
    window = Polygon(seen.viewport.outline).buffer(-CLEAR)
    found = []
    for name, (x0, y0), (x1, y1) in lines:
        if _looks_down(seen):
            line = LineString([seen.to_paper((x0, y0, 0.0)), seen.to_paper((x1, y1, 0.0))])
        elif _upright(seen) and abs(math.hypot(*seen.way((*_unit((x1 - x0, y1 - y0)), 0.0)))) < _STRAIGHT:
            across, _ = seen.to_paper((x0, y0, seen.origin[2]))
            low, high = window.bounds[1], window.bounds[3]
            line = LineString([(across, high), (across, low)])
        else:
            continue
        part = _longest(line.intersection(window.buffer(-2 * GRID_BUBBLE)))
        if part is None or part.length < MIN_LINE:
            continue
        a, b = (
            (float(part.coords[0][0]), float(part.coords[0][1])),
            (float(part.coords[-1][0]), float(part.coords[-1][1])),
        )
        wx, wy = _unit((a[0] - b[0], a[1] - b[1]))
        found.append(GridMark(name, (a, b), (a[0] + wx * GRID_BUBBLE, a[1] + wy * GRID_BUBBLE)))
    return found


def marks_in(seen: MarkedView, subjects: Sequence[Subject], taken: Sequence[Point] = ()) -> list[Mark]:
    """The marks of all views that lie in the one that is seen: sections and details, and elevations round
    them, clear of the bubbles that are `taken` already."""
    window = Polygon(seen.viewport.outline).buffer(-CLEAR)
    found: list[Mark] = []
    # Elevation marks can stand elsewhere as well, and so they make room for the others.
    for subject in sorted(subjects, key=lambda s: s.spec.kind == "elevation"):
        if subject.id != seen.view and seen.spec.to_scale:
            moved = seen.viewport.mark_offsets.get(subject.id, ())
            found += [_moved(mark, moved) for mark in _marks_of(seen, subject, window, found, taken)]
    return found


def _marks_of(
    seen: MarkedView, subject: Subject, window: BaseGeometry, others: list[Mark], taken: Sequence[Point]
) -> Iterator[Mark]:
    spec = subject.spec
    if isinstance(spec, Section):
        yield from _section(seen, subject, spec, window)
    elif isinstance(spec, Elevation) and seen.spec.kind in ("plan", "roof"):
        yield from _elevation(seen, subject, window, [*taken, *(b for mark in others for b in mark.bubbles)])
    elif isinstance(spec, Detail) and _same_subject(spec.of, seen.spec):
        yield from _detail(seen, subject, spec, window)


def _moved(mark: Mark, by: Sequence[Point]) -> Mark:
    """A mark whose bubbles were moved by hand: a section's only along its line, whose ends go with them."""
    if len(by) != len(mark.bubbles):
        return mark
    bubbles, line = list(mark.bubbles), list(mark.line)
    for k, (dx, dy) in enumerate(by):
        if mark.kind == "section":
            end, inner = (0, 1) if k == 0 else (-1, -2)
            wx, wy = _unit((line[end][0] - line[inner][0], line[end][1] - line[inner][1]))
            # The line keeps a little of its length, or it would turn round.
            along = max(dx * wx + dy * wy, MIN_LINE / 2 - math.dist(line[end], line[inner]))
            dx, dy = wx * along, wy * along
            line[end] = line[end][0] + dx, line[end][1] + dy
        bubbles[k] = bubbles[k][0] + dx, bubbles[k][1] + dy
    return replace(mark, bubbles=tuple(bubbles), line=tuple(line))


def _section(seen: MarkedView, subject: Subject, spec: Section, window: BaseGeometry) -> Iterator[Mark]:
    """A section's line: from above all of it; from the side, where one looks along its plane, an upright."""
    corners = spec.line
    if _looks_down(seen):
        line = LineString([seen.to_paper((x, y, 0.0)) for x, y in corners])
    elif _upright(seen) and len(corners) == 2 and abs(math.hypot(*seen.way(subject.toward)) - 1) < _STRAIGHT:
        (x, y), _ = corners
        low, high = window.bounds[1], window.bounds[3]
        across, _ = seen.to_paper((x, y, seen.origin[2]))
        line = LineString([(across, low), (across, high)])
    else:
        return
    # The bubbles beyond its ends have to be seen too.
    part = _longest(line.intersection(window.buffer(-2 * BUBBLE)))
    if part is None or part.length < MIN_LINE:
        return
    points = [(float(x), float(y)) for x, y in part.coords]
    sight = _unit(tuple(-x for x in seen.way(subject.toward)))
    bubbles = _beyond(points[0], points[1]), _beyond(points[-1], points[-2])
    # From the side the line would run through all that is drawn there, and say no more than its ends.
    yield Mark(
        subject.id, subject.reference, "section", tuple(points), bubbles, sight, through=_looks_down(seen)
    )


def _elevation(
    seen: MarkedView, subject: Subject, window: BaseGeometry, taken: Sequence[Point]
) -> Iterator[Mark]:
    """An elevation's mark: on the side from which it is looked at, as near to the outline as it goes."""
    way = _unit(seen.way(subject.toward))
    room = window.buffer(-BUBBLE)
    if room.is_empty:
        return
    middle = room.centroid
    far = 2 * (room.bounds[2] - room.bounds[0] + room.bounds[3] - room.bounds[1])
    aside = (-way[1], way[0])
    for step in (0, 1, -1, 2, -2, 3, -3):
        x, y = middle.x + aside[0] * step * BESIDE, middle.y + aside[1] * step * BESIDE
        ray = LineString([(x, y), (x + way[0] * far, y + way[1] * far)]).intersection(room)
        part = _longest(ray)
        if part is None:
            continue
        at = max(part.coords, key=lambda p: p[0] * way[0] + p[1] * way[1])
        if all(math.dist(at, b) >= 2 * BUBBLE for b in taken):
            bubble = (float(at[0]), float(at[1]))
            yield Mark(subject.id, subject.reference, "elevation", (), (bubble,), (-way[0], -way[1]))
            return


def _detail(seen: MarkedView, subject: Subject, spec: Detail, window: BaseGeometry) -> Iterator[Mark]:
    """A detail's outline, and a bubble at its upper right."""
    ring = [seen.viewport.to_paper(u, v) for u, v in spec.region.outline]
    seen_part = Polygon(ring).intersection(window)
    if seen_part.is_empty:
        return
    west, south, east, north = seen_part.bounds
    room = window.buffer(-BUBBLE)
    if room.is_empty:
        return
    # Beside the outline where there is room, else as near as the window lets it.
    best = min(
        ((east + BUBBLE, north + BUBBLE), (west - BUBBLE, north + BUBBLE), (east + BUBBLE, south - BUBBLE)),
        key=lambda p: room.distance(LineString([p, (p[0], p[1] + 1e-6)])),
    )
    nearest = room.boundary.interpolate(room.boundary.project(LineString([best, best]).centroid))
    inside = room.contains(LineString([best, (best[0] + 1e-6, best[1])]))
    bubble = best if inside else (float(nearest.x), float(nearest.y))
    yield Mark(subject.id, subject.reference, "detail", tuple(ring), (bubble,), None)


def levels_in(seen: MarkedView, storeys: Sequence[tuple[str, float]], feet: bool = False) -> list[Level]:
    """The storeys' levels (name, elevation in mm) that are seen in an upright view that is not turned."""
    if not _upright(seen) or seen.viewport.turn or not seen.spec.to_scale:
        return []
    outline = Polygon(seen.viewport.outline)
    west, south, east, north = outline.bounds
    levels = []
    for name, elevation in storeys:
        _, y = seen.to_paper((seen.origin[0], seen.origin[1], elevation))
        part = (
            _longest(LineString([(west, y), (east, y)]).intersection(outline)) if south < y < north else None
        )
        if part is not None:
            left, _, right, _ = part.bounds
            levels.append(Level(y, left, right, name, level_text(elevation, feet)))
    return levels


def level_text(elevation: float, feet: bool = False) -> str:
    """A level as the trade writes it: +2.900 and ±0.000 in metres, or +9'-6 1/4" in feet and inches, to a
    quarter."""
    if feet:
        sign = "±" if round(abs(elevation) / _QUARTER) == 0 else "+" if elevation > 0 else "−"
        return sign + feet_and_inches(abs(elevation), 4)
    sign = "±" if abs(elevation) < 0.5 else "+" if elevation > 0 else "−"
    return f"{sign}{abs(elevation) / 1000:.3f}"


def north_on_paper(seen: MarkedView, true_north: float | None) -> Point | None:
    """The way to north on paper, a unit vector: to the model's true north (degrees from y), or to its y
    axis."""
    if not _looks_down(seen):
        return None
    angle = math.radians(true_north or 0.0)
    return _unit(seen.way((math.sin(angle), math.cos(angle), 0.0)))


def _looks_down(seen: MarkedView) -> bool:
    return abs(_dot(_cross(seen.right, seen.up), (0.0, 0.0, 1.0)) - 1) < _STRAIGHT


def _upright(seen: MarkedView) -> bool:
    return seen.up[2] > 1 - _STRAIGHT


def _same_subject(a: AnyView, b: AnyView) -> bool:
    """Whether two views look at the same, however their lines are treated and whatever they leave out."""
    return _bare(a) == _bare(b)


def _bare(spec: AnyView) -> AnyView:
    return replace(spec, line_settings=DEFAULT_LINE_SETTINGS, shown=Shown())


def _beyond(end: Point, inner: Point) -> Point:
    """The middle of a bubble that continues a line at its end."""
    way = _unit((end[0] - inner[0], end[1] - inner[1]))
    return end[0] + way[0] * BUBBLE, end[1] + way[1] * BUBBLE


def _longest(geometry: BaseGeometry) -> LineString | None:
    parts = [
        g for g in getattr(geometry, "geoms", [geometry]) if isinstance(g, LineString) and not g.is_empty
    ]
    return max(parts, key=lambda g: g.length, default=None)


def _unit(vector: Sequence[float]) -> Point:
    length = math.hypot(*vector) or 1.0
    return vector[0] / length, vector[1] / length


def _dot(a: Sequence[float], b: Sequence[float]) -> float:
    return sum(x * y for x, y in zip(a, b, strict=True))


def _cross(a: Axis, b: Axis) -> Axis:
    return a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]
