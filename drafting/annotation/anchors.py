"""Anchors: what a piece of annotation is attached to, found again when the drawing has become another.

An anchor keeps the element's id and which of its corners it is, and not only a place. Where the element has
moved, or has been made longer, the corner is found again by the lines that leave it and by its place among
the element's other corners; where it is gone the anchor is lost, and says so.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from drafting.geometry.boxes import Point
from drafting.schema import CLOSED, Number, Whole

#: Lengths of a drawing that differ by less are the same, mm: a drawing's places are rounded to a hundredth.
SAME = 0.5
#: Directions that differ by less are the same, degrees.
SAME_WAY = 2.0
#: An anchor lies on what it is said to lie on where it is nearer than this, mm.
ON = 2.0
#: Elements' ids are GUIDs of 22 letters; other formats have the names of their objects.
MAX_ID = 200

State = Literal["followed", "lost"]
#: Nothing lies farther from where a drawing or a sheet begins: a million kilometres.
_Figure = Annotated[Number, Field(ge=-1e12, le=1e12)]
Place = Annotated[
    tuple[_Figure, _Figure], Field(description="u and v of the view, real mm; of a sheet, paper mm.")
]
Degrees = Annotated[Number, Field(ge=0, lt=360)]


@dataclass(frozen=True)
class AnchorCorner:
    """A corner of an element as it is drawn, or a centre of it.

    Attributes:
        ways: where the lines leave it, degrees anticlockwise from u, rising; none leaves a centre.
        reach: how far from it the left, lower, right and upper side of what is drawn of its element are, mm.
        rank: its number among the element's corners with the same ways, from the left, then upward.
        count: how many of these there are.
    """

    __pydantic_config__ = CLOSED

    ways: Annotated[tuple[Degrees, ...], Field(max_length=64)]
    reach: tuple[Number, Number, Number, Number]
    rank: Annotated[Whole, Field(ge=0)]
    count: Annotated[Whole, Field(ge=1)]


@dataclass(frozen=True)
class Anchor:
    """What a point is attached to.

    Attributes:
        at: where it lay when it was attached.
        element: the id of its element; blank for a point that is attached to nothing.
        ends: the corner that it is, or the two ends of the straight line that it lies on.
        share: how far along that line it lies, from 0 to 1.
    """

    __pydantic_config__ = CLOSED

    at: Place
    element: Annotated[str, Field(max_length=MAX_ID)] = ""
    ends: Annotated[tuple[AnchorCorner, ...], Field(max_length=2)] = ()
    share: Annotated[Number, Field(ge=0, le=1)] = 0.0


class FollowedAnchor(NamedTuple):
    """Where an anchor lies now, and whether what it is attached to is still there."""

    at: Point
    state: State


@dataclass(frozen=True)
class ElementCorners:
    """The corners of one element in one drawing, with their places, and the straight lines between them by
    the numbers of their ends."""

    corners: tuple[AnchorCorner, ...]
    places: tuple[Point, ...]
    lines: frozenset[tuple[int, int]]

    @property
    def outer(self) -> tuple[int, ...]:
        """The numbers of those that lie on its lines; of what has none of them, all."""
        on_lines = tuple(k for k, corner in enumerate(self.corners) if corner.ways)
        return on_lines or tuple(range(len(self.corners)))


def described(at: Point, element: str, among: ElementCorners) -> Anchor:
    """The anchor of a point on an element: on its corner, or on the line between two. A point that lies on
    neither is attached to nothing."""
    near = [(_apart(at, place), k) for k, place in enumerate(among.places)]
    distance, nearest = min(near, default=(ON, -1))
    if distance < ON:
        return Anchor(among.places[nearest], element, (among.corners[nearest],))
    best: tuple[float, float, int, int] | None = None
    for a, b in among.lines:
        away, share = _from_line(at, among.places[a], among.places[b])
        if away < ON and (best is None or away < best[0]):
            best = away, share, a, b
    if best is None:
        return Anchor(at)
    _, share, a, b = best
    return Anchor(at, element, (among.corners[a], among.corners[b]), share)


def followed(anchor: Anchor, among: ElementCorners | None) -> FollowedAnchor:
    """Where an anchor lies in a drawing.

    Args:
        among: the corners of its element there; None where the drawing has nothing of it.
    """
    if not anchor.element:
        return FollowedAnchor(anchor.at, "followed")
    found = [] if among is None else [_place(corner, among) for corner in anchor.ends]
    places = [place for place in found if place is not None]
    if not places or len(places) < len(anchor.ends):
        return FollowedAnchor(anchor.at, "lost")
    (ax, ay), (bx, by) = places[0], places[-1]
    return FollowedAnchor((ax + (bx - ax) * anchor.share, ay + (by - ay) * anchor.share), "followed")


def _place(wanted: AnchorCorner, among: ElementCorners) -> Point | None:
    """Where a corner is now: the one like it that keeps its distances from the sides of the element; else, in
    an element with as many corners like it as before, the one of its rank."""
    like = [k for k, corner in enumerate(among.corners) if alike(wanted.ways, corner.ways)]
    kept = {k: _kept(wanted.reach, among.corners[k].reach) for k in like}
    for least in (4, 3, 2):
        best = [k for k in like if kept[k] >= least]
        if len(best) == 1:
            return among.places[best[0]]
        if best:
            break
    if len(like) == wanted.count:
        return among.places[sorted(like, key=lambda k: among.corners[k].rank)[wanted.rank]]
    return None


def _kept(before: Sequence[float], now: Sequence[float]) -> int:
    """How many distances from the four sides are what they were; 0 where both have changed along an axis."""
    same = [abs(a - b) < SAME for a, b in zip(before, now, strict=True)]
    return sum(same) if (same[0] or same[2]) and (same[1] or same[3]) else 0


def alike(a: Sequence[float], b: Sequence[float]) -> bool:
    if len(a) != len(b):
        return False
    # Rising lists of angles may begin on either side of zero.
    return any(
        all(min((x - y) % 360, (y - x) % 360) < SAME_WAY for x, y in zip(a, (*b[k:], *b[:k]), strict=True))
        for k in range(max(len(b), 1))
    )


def _apart(a: Point, b: Point) -> float:
    return float(((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5)


def _from_line(at: Point, a: Point, b: Point) -> tuple[float, float]:
    """How far a point lies from the line between two, and at which share of it its foot is."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    share = ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / max(dx * dx + dy * dy, 1e-9)
    share = min(max(share, 0.0), 1.0)
    return _apart(at, (a[0] + dx * share, a[1] + dy * share)), share
