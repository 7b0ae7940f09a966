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
from shapely import Point as ShapelyPoint
from shapely.geometry.base import BaseGeometry

from drafting.geometry.boxes import Point
from drafting.sheets.grid_marks import GRID_BUBBLE
from drafting.sheets.marked_view import (
    AROUND,
    MIN_LINE,
    STRAIGHT,
    Axis,
    MarkedView,
    drawn_out,
    foot_is_cropped,
    is_upright,
    longest_part,
    looks_down,
    room_for_marks,
    unit_vector,
)
from drafting.views.detail import Detail
from drafting.views.elevation import Elevation
from drafting.views.line_settings import DEFAULT_LINE_SETTINGS
from drafting.views.section import Section
from drafting.views.shown import Shown
from drafting.views.spec import AnyView

#: Radius of the bubble that carries a mark's numbers; paper mm.
BUBBLE = 5.0
#: How long the wide ends and corners of a section's line are; the ends stand clear of dimensions. mm
THICK = 5.0
#: A piece of a section's line runs across its first direction where their cosine is below this.
ASLANT = 0.5
#: How far apart two elevation marks are set that would cover each other; mm.
BESIDE = 2 * BUBBLE + 6.0


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
class Mark:
    """The mark of one view on another. All of it on paper, mm.

    Attributes:
        subject: the id of the view that is marked.
        reference: what its bubbles say.
        kind: section, elevation or detail; or the jog of the section that is seen.
        line: a section's line, the closed outline of a detail, the upright at a jog.
        bubbles: the middles of its bubbles. A section has one beyond each end of its line; seen from the side
            and cropped through at the foot, beyond the upper end alone.
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

    @property
    def points_nowhere(self) -> bool:
        """Whether it marks a view that stands on no sheet."""
        return self.kind != "jog" and not self.reference.sheet


def marks_in(seen: MarkedView, subjects: Sequence[Subject], taken: Sequence[Point] = ()) -> list[Mark]:
    """The marks of all views that lie in the one that is seen: sections and details, and elevations round
    them, clear of the bubbles that are `taken` already."""
    window = room_for_marks(seen, 2 * BUBBLE + max(AROUND, THICK))
    found: list[Mark] = []
    # Elevation marks can stand elsewhere as well, and so they make room for the others.
    for subject in sorted(subjects, key=lambda s: s.spec.kind == "elevation"):
        if subject.id != seen.view and seen.spec.to_scale:
            moved = seen.viewport.mark_offsets.get(subject.id, ())
            found += [_moved(mark, moved) for mark in _marks_of(seen, subject, window, found, taken)]
    if isinstance(seen.spec, Section) and is_upright(seen):
        found += _jogs(seen, seen.spec, window)
    return found


def _marks_of(
    seen: MarkedView, subject: Subject, window: BaseGeometry, others: list[Mark], taken: Sequence[Point]
) -> Iterator[Mark]:
    spec = subject.spec
    if isinstance(spec, Section):
        yield from _section(seen, subject, spec, window, taken)
    elif isinstance(spec, Elevation) and seen.spec.kind in ("plan", "roof"):
        yield from _elevation(seen, subject, window, [*taken, *(b for mark in others for b in mark.bubbles)])
    elif isinstance(spec, Detail) and _same_subject(spec.of, seen.spec):
        yield from _detail(
            seen, subject, spec, window, [*taken, *(b for mark in others for b in mark.bubbles)]
        )


def _moved(mark: Mark, by: Sequence[Point]) -> Mark:
    """A mark whose bubbles were moved by hand: a section's only along its line, whose ends go with them."""
    if len(by) != len(mark.bubbles):
        return mark
    bubbles, line = list(mark.bubbles), list(mark.line)
    for k, (dx, dy) in enumerate(by):
        if mark.kind == "section":
            end, inner = (0, 1) if k == 0 else (-1, -2)
            wx, wy = unit_vector((line[end][0] - line[inner][0], line[end][1] - line[inner][1]))
            # The line keeps a little of its length, or it would turn round.
            along = max(dx * wx + dy * wy, MIN_LINE / 2 - math.dist(line[end], line[inner]))
            dx, dy = wx * along, wy * along
            line[end] = line[end][0] + dx, line[end][1] + dy
        bubbles[k] = bubbles[k][0] + dx, bubbles[k][1] + dy
    return replace(mark, bubbles=tuple(bubbles), line=tuple(line))


def _section(
    seen: MarkedView, subject: Subject, spec: Section, window: BaseGeometry, taken: Sequence[Point]
) -> Iterator[Mark]:
    """A section's line: from above all of it; from the side, where one looks along its plane, an upright."""
    corners = spec.line
    if looks_down(seen):
        line = LineString(drawn_out(seen, [seen.to_paper((x, y, 0.0)) for x, y in corners]))
    elif is_upright(seen) and len(corners) == 2 and abs(math.hypot(*seen.way(subject.toward)) - 1) < STRAIGHT:
        (x, y), _ = corners
        low, high = window.bounds[1], window.bounds[3]
        across, _ = seen.to_paper((x, y, seen.origin[2]))
        line = LineString([(across, high), (across, low)])
    else:
        return
    points = _seen_of(line, window)
    if LineString(points).length < MIN_LINE:
        return
    if seen.building is not None:
        points[0] = _clear_of(points[0], points[1], taken)
        points[-1] = _clear_of(points[-1], points[-2], taken)
    sight = unit_vector(tuple(-x for x in seen.way(subject.toward)))
    bubbles: tuple[Point, ...] = _beyond(points[0], points[1]), _beyond(points[-1], points[-2])
    if not looks_down(seen) and foot_is_cropped(seen):
        # The lower one would lie on what stands there, as a rule the foundations.
        bubbles = bubbles[:1]
    # From the side the line would run through all that is drawn there, and say no more than its ends.
    yield Mark(
        subject.id, subject.reference, "section", tuple(points), bubbles, sight, through=looks_down(seen)
    )


def _seen_of(line: LineString, window: BaseGeometry) -> list[Point]:
    """What of a section's line lies in a window, cut off at its edges so that there is room for the bubbles
    beyond its ends. What is left ends along the first direction, and not in the middle of a jog."""
    ends = [(float(x), float(y)) for x, y in line.coords]
    along = unit_vector((ends[1][0] - ends[0][0], ends[1][1] - ends[0][1]))
    for end, inner in ((0, 1), (-1, -2)):
        ends[end] = _further(ends[end], ends[inner], 2 * BUBBLE)
    part = longest_part(LineString(ends).intersection(window))
    points = [(float(x), float(y)) for x, y in part.coords] if part else [ends[0], ends[0]]
    for end, inner in ((0, 1), (-1, -2)):
        way = unit_vector((points[end][0] - points[inner][0], points[end][1] - points[inner][1]))
        if len(points) > 2 and abs(way[0] * along[0] + way[1] * along[1]) < ASLANT:
            points.pop(end)
        else:
            room = math.dist(points[end], points[inner]) - MIN_LINE / 2
            points[end] = _further(points[end], points[inner], -min(2 * BUBBLE, max(room, 0.0)))
    return points


def _further(end: Point, inner: Point, by: float) -> Point:
    """The end of a line, so much further out."""
    way = unit_vector((end[0] - inner[0], end[1] - inner[1]))
    return end[0] + way[0] * by, end[1] + way[1] * by


def _jogs(seen: MarkedView, spec: Section, window: BaseGeometry) -> Iterator[Mark]:
    """Where the plane of the section that is seen goes on in another one (ISO 128-3): uprights from the lower
    to the upper end of where marks stand."""
    low, high = window.bounds[1], window.bounds[3]
    for x, y in spec.line[2:-1:2]:
        across, _ = seen.to_paper((x, y, seen.origin[2]))
        if window.bounds[0] < across < window.bounds[2]:
            yield Mark(seen.view, Reference(), "jog", ((across, low), (across, high)), (), None)


def _clear_of(end: Point, inner: Point, taken: Sequence[Point]) -> Point:
    """The end of a section's line, moved outward until its bubble stands clear of those of the grid."""
    way = unit_vector((end[0] - inner[0], end[1] - inner[1]))
    for step in range(int(2 * BUBBLE) + 1):
        moved = end[0] + way[0] * step, end[1] + way[1] * step
        bubble = moved[0] + way[0] * BUBBLE, moved[1] + way[1] * BUBBLE
        if all(math.dist(bubble, other) >= BUBBLE + GRID_BUBBLE for other in taken):
            return moved
    return end


def _elevation(
    seen: MarkedView, subject: Subject, window: BaseGeometry, taken: Sequence[Point]
) -> Iterator[Mark]:
    """An elevation's mark: on the side from which it is looked at, as near to the outline as it goes."""
    way = unit_vector(seen.way(subject.toward))
    room = window.buffer(-BUBBLE)
    if room.is_empty:
        return
    middle = room.centroid
    far = 2 * (room.bounds[2] - room.bounds[0] + room.bounds[3] - room.bounds[1])
    aside = (-way[1], way[0])
    for step in (0, 1, -1, 2, -2, 3, -3):
        x, y = middle.x + aside[0] * step * BESIDE, middle.y + aside[1] * step * BESIDE
        ray = LineString([(x, y), (x + way[0] * far, y + way[1] * far)]).intersection(room)
        part = longest_part(ray)
        if part is None:
            continue
        at = max(part.coords, key=lambda p: p[0] * way[0] + p[1] * way[1])
        if all(math.dist(at, b) >= 2 * BUBBLE for b in taken):
            bubble = (float(at[0]), float(at[1]))
            yield Mark(subject.id, subject.reference, "elevation", (), (bubble,), (-way[0], -way[1]))
            return


def _detail(
    seen: MarkedView, subject: Subject, spec: Detail, window: BaseGeometry, taken: Sequence[Point]
) -> Iterator[Mark]:
    """A detail's outline, and a bubble beside it: in the freest of the places about the outline."""
    ring = [seen.viewport.to_paper(u, v) for u, v in spec.region.outline]
    seen_part = Polygon(ring).intersection(window)
    room = window.buffer(-BUBBLE)
    if seen_part.is_empty or room.is_empty:
        return
    west, south, east, north = seen_part.bounds
    own = seen.building
    across, along = (west - BUBBLE, east + BUBBLE), (south - BUBBLE, north + BUBBLE)
    # Corners first, and of all the upper right.
    places = [(x, y) for x in reversed(across) for y in reversed(along)]
    for share in (0.75, 0.5, 0.25):
        x, y = west + share * (east - west), south + share * (north - south)
        places += [(x, along[1]), (x, along[0]), (across[1], y), (across[0], y)]

    def hindered(at: Point) -> tuple[bool, bool, bool]:
        """Whether it lies out of room, on something that stands there already, and on the building but for
        the floor of a room."""
        covered = any(math.dist(at, other) < 2 * BUBBLE for other in taken) or any(
            box.x - BUBBLE < at[0] < box.right + BUBBLE and box.y - BUBBLE < at[1] < box.top + BUBBLE
            for box in seen.taken
        )
        on = own is not None and own.x < at[0] < own.right and own.y < at[1] < own.top
        bubble = ShapelyPoint(at).buffer(BUBBLE)
        on = on and not any(floor.contains(bubble) for floor in seen.floors)
        return not room.contains(ShapelyPoint(at)), covered, on

    best = min(places, key=hindered)
    if hindered(best)[0]:
        # As near as the window lets it.
        nearest = room.boundary.interpolate(room.boundary.project(ShapelyPoint(best)))
        best = (float(nearest.x), float(nearest.y))
    yield Mark(subject.id, subject.reference, "detail", tuple(ring), (best,), None)


def _same_subject(a: AnyView, b: AnyView) -> bool:
    """Whether two views look at the same, however their lines are treated and whatever they leave out."""
    return _bare(a) == _bare(b)


def _bare(spec: AnyView) -> AnyView:
    return replace(spec, line_settings=DEFAULT_LINE_SETTINGS, shown=Shown())


def _beyond(end: Point, inner: Point) -> Point:
    """The middle of a bubble that continues a line at its end."""
    return _further(end, inner, BUBBLE)
