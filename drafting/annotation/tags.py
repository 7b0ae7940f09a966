"""Tags: labels of elements, with words from their data, clear of each other."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self, get_args

import shapely
from pydantic import Field

from drafting.annotation.anchors import Anchor, ElementCorners, described, followed
from drafting.annotation.notes import Offset
from drafting.annotation.piece import BasePiece, CornersOf, Location
from drafting.annotation.schedules import cell_text, element_entry
from drafting.building.element_data import ElementData
from drafting.building.openings import Opening
from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point, box_about
from drafting.geometry.polylines import Floats
from drafting.schema import CLOSED, Flag
from drafting.sheets.viewport import Viewport
from drafting.styles.lengths import feet_and_inches, plain_figure
from drafting.styles.lettering import LEADING, text_width
from drafting.views.spec import AnyView

#: What a tag says: the number of its door or window, its size, or both; of any element a value of its data.
TagWords = Literal["number", "size", "both", "value"]
TAG_WORDS: tuple[TagWords, ...] = get_args(TagWords)
#: Height of the number and of the size below it; clear space about the words in their outline; paper mm.
SIZE, SMALL, PAD = 2.0, 1.8, 1.0
#: Of a label whose door or window has no number.
UNNUMBERED = "–"
#: How far from its opening a tag is tried, the nearest first, mm; and how much further to each side.
_AWAY, _ASIDE = (1.2, 2.4, 3.6, 5.0, 6.5, 8.0, 10.0, 12.0), (0.0, 3.0, -3.0, 6.0, -6.0, 9.0, -9.0)
#: What is kept clear about what is there already, mm.
CLEAR = 0.7


@dataclass(frozen=True)
class Tag(BasePiece):
    """A label of an element.

    Attributes:
        at: a corner of it.
        offset: from there to the middle of the label, paper mm.
        shows: what it says.
        source: of a value, which: “Name”, “Material”, an attribute, “Set.Property”.
        feet: whether sizes are in feet and inches, and not in millimetres.
        override: what is typed over its words; blank for these.
    """

    __pydantic_config__ = CLOSED
    name: ClassVar[str] = "tag"

    at: Anchor
    offset: tuple[Offset, Offset] = (0.0, 0.0)
    shows: TagWords = "number"
    source: Annotated[str, Field(max_length=200)] = "Name"
    feet: Flag = False
    override: Annotated[str, Field(max_length=40)] = ""
    kind: Literal["tag"] = "tag"

    @property
    def anchors(self) -> tuple[Anchor, ...]:
        return (self.at,)

    def attached_to(self, anchors: Sequence[Anchor]) -> Self:
        return replace(self, at=anchors[0])

    @property
    def typed_over(self) -> bool:
        return bool(self.override)

    def locate(self, corners_of: CornersOf) -> Location:
        """A tag is of all of its element, and is lost with that alone."""
        among = corners_of(self.at.element)
        if among is None:
            return Location((self.at.at,), "lost", "what it is attached to is no longer in this drawing")
        found = followed(self.at, among)
        if found.state == "followed":
            return Location((found.at,), "followed")
        return Location((min(among.places, key=lambda place: math.dist(place, self.at.at)),), "followed")

    def check(self, view: AnyView | None, *, upright: bool = True) -> None:
        if view is None:
            raise SheetError("A tag is the label of an element. Put it on a drawing.")


def tag_lines(tag: Tag, opening: Opening | None, element: ElementData | None = None) -> tuple[str, ...]:
    """The lines of a label: the first in an outline, a size below it.

    >>> tag_lines(Tag(Anchor((0, 0)), shows="both"), Opening("x", "D3", True, "", 900.0, 2100.0))
    ('D3', '900 × 2100')
    """
    if tag.override:
        return (tag.override,)
    if tag.shows == "value":
        value = element_entry(element).values.get(tag.source, "") if element else ""
        return (cell_text(tag.source, value, tag.feet) or UNNUMBERED,)
    if opening is None:
        return ((element.name if element else "") or UNNUMBERED,)
    words = feet_and_inches if tag.feet else lambda length, parts: plain_figure(length, 0)
    size = f"{words(opening.width, 8)} × {words(opening.height, 8)}"
    if tag.shows == "size":
        return (size,)
    number = opening.name or UNNUMBERED
    return (number, size) if tag.shows == "both" else (number,)


def label_size(lines: Sequence[str]) -> tuple[float, float]:
    """Width and height of a label, paper mm: its outline, and below it the size."""
    high = SIZE + 2 * PAD
    wide = max(text_width(lines[0], SIZE, bold=True) + 2 * PAD + SIZE, high)
    if len(lines) > 1:
        return max(wide, text_width(lines[1], SMALL)), high + SMALL * LEADING
    return wide, high


def tags_for(
    labels: Mapping[str, Sequence[str]],
    corners_of: Callable[[str], ElementCorners | None],
    viewport: Viewport,
    taken: Iterable[Box],
    lines: Floats,
    like: Tag,
) -> Iterator[Tag]:
    """Tags for those elements that a drawing shows within its outline, each beside its own and clear of what
    is there already.

    Args:
        labels: the lines of each label, by the ids of elements.
        taken: what is there already, paper mm.
        lines: (n, 2) points along lines that labels do not lie over where that can be helped, paper mm.
        like: what tags are to say.
    """
    occupied = [_about(box) for box in taken]
    under = shapely.STRtree(shapely.points(lines))

    def crosses(box: Box) -> bool:
        return len(under.query(shapely.box(box.x, box.y, box.right, box.top), predicate="contains")) > 0

    for element, label in labels.items():
        among = corners_of(element)
        if among is None:
            continue
        corners = [among.places[k] for k in among.outer]
        places = [viewport.to_paper(*corner) for corner in corners]
        own = box_about(places)
        if not viewport.box.holds(own):
            continue
        nearest = min(range(len(places)), key=lambda k: (_apart(places[k], own.middle), k))
        wide, high = label_size(label)
        middle = _free_place(own, wide, high, occupied, viewport.box, crosses)
        occupied.append(Box(middle[0] - wide / 2, middle[1] - high / 2, wide, high))
        anchor = described(corners[nearest], element, among)
        x, y = places[nearest]
        offset = round(middle[0] - x, 2), round(middle[1] - y, 2)
        yield replace(like, at=anchor, offset=offset)


def _about(box: Box) -> Box:
    return Box(box.x - CLEAR, box.y - CLEAR, box.width + 2 * CLEAR, box.height + 2 * CLEAR)


def _apart(a: Point, b: Point) -> float:
    return (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2


def _free_place(
    own: Box,
    wide: float,
    high: float,
    taken: Sequence[Box],
    within: Box,
    crosses: Callable[[Box], bool],
) -> Point:
    """The middle of a label beside an opening: across the wall rather than along it, near rather than far;
    over lines, or over something, only where there is no better place."""
    over_lines = None
    for away in _AWAY:
        for aside in _ASIDE:
            for middle in _around(own, wide, high, away, aside):
                box = Box(middle[0] - wide / 2, middle[1] - high / 2, wide, high)
                if within.holds(box) and not any(box.meets(other) for other in taken):
                    if not crosses(box):
                        return middle
                    over_lines = over_lines or middle
    return over_lines or next(_around(own, wide, high, _AWAY[0], 0.0))


def _around(own: Box, wide: float, high: float, away: float, aside: float) -> Iterator[Point]:
    x, y = own.middle
    below = x + aside, own.y - away - high / 2
    above = x + aside, own.top + away + high / 2
    left = own.x - away - wide / 2, y + aside
    right = own.right + away + wide / 2, y + aside
    yield from (below, above, right, left) if own.width >= own.height else (right, left, below, above)
