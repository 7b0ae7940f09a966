"""Viewports: windows of any shape on a sheet, through which views are seen at a true scale."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from shapely import LinearRing

from drafting.errors import SheetError
from drafting.linework.model import ROLES
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale

#: A viewport narrower or lower than this cannot be taken hold of. mm.
LEAST_VIEWPORT = 2.0
SHAPES = ("rectangle", "circle", "polygon")
#: Drawing titles: number, name and scale; with a scale bar; with a scale bar and a north point on plans; none.
TITLES = ("plain", "bar", "north", "none")
#: Sides of the polygon that a circle is drawn as: on a viewport of 500 mm it is within 0.02 mm of round.
ROUND = 256
MOST_CORNERS = 200

NOT_TO_SCALE = "Not to scale"
#: The narrowest and the widest line of an override, mm: ISO 128 has 0.13 to 2.
LEAST_WIDTH, GREATEST_WIDTH = 0.05, 2.0

Point = tuple[float, float]


@dataclass(frozen=True)
class Box:
    """A rectangle on paper: its lower left corner and its size, mm."""

    x: float
    y: float
    width: float
    height: float

    @property
    def right(self) -> float:
        return self.x + self.width

    @property
    def top(self) -> float:
        return self.y + self.height

    @property
    def middle(self) -> Point:
        return self.x + self.width / 2, self.y + self.height / 2

    @property
    def corners(self) -> tuple[Point, ...]:
        """Anticlockwise from the lower left."""
        return (self.x, self.y), (self.right, self.y), (self.right, self.top), (self.x, self.top)

    def meets(self, other: Box) -> bool:
        """Whether the two share more than an edge."""
        return self.x < other.right and other.x < self.right and self.y < other.top and other.y < self.top

    def holds(self, other: Box) -> bool:
        """Whether the other lies wholly within."""
        return self.x <= other.x and self.y <= other.y and self.right >= other.right and self.top >= other.top


@dataclass(frozen=True)
class PenChange:
    """How a pen differs from the usual one: its width in mm, its colour (#rrggbb), its pattern in widths, its screening
    in per cent; None for what does not."""

    width: float | None = None
    colour: str | None = None
    pattern: tuple[float, ...] | None = None
    screen: int | None = None


@dataclass(frozen=True)
class PenChanges:
    """The pens of a viewport that differ, by line role and by layer; a layer's goes before a role's."""

    roles: Mapping[str, PenChange] = field(default_factory=dict)
    layers: Mapping[str, PenChange] = field(default_factory=dict)

    @classmethod
    def from_dict(cls, given: Mapping[str, Any]) -> PenChanges:
        """From plain data: `{"roles": {"cut": {"width": 0.7}}, "layers": {"Furniture": {"colour": "#888888"}}}`.

        Raises:
            SheetError: no such role, or a width or colour that no pen has.
        """
        unknown = set(given) - {"roles", "layers"}
        if unknown:
            raise SheetError(f"Pens are changed by roles or by layers, not by {', '.join(sorted(unknown))}.")
        roles = {name: _pen_change(name, change) for name, change in dict(given.get("roles", {})).items()}
        for name in roles:
            if name not in ROLES:
                raise SheetError(f"“{name}” is no line role. Roles are {', '.join(ROLES)}.")
        return cls(roles, {name: _pen_change(name, change) for name, change in dict(given.get("layers", {})).items()})


def _pen_change(name: str, given: Any) -> PenChange:
    if not isinstance(given, Mapping) or set(given) - {"width", "colour"}:
        raise SheetError(f"The pen of {name} is changed in its width or its colour.")
    width, colour = given.get("width"), given.get("colour")
    if width is not None and not (isinstance(width, int | float) and LEAST_WIDTH <= width <= GREATEST_WIDTH):
        raise SheetError(f"The pen of {name} has a width of {LEAST_WIDTH:g} to {GREATEST_WIDTH:g} mm; {width} is not.")
    if colour is not None and not re.fullmatch(r"#[0-9a-f]{6}", str(colour)):
        raise SheetError(f"The pen of {name} has a colour such as #1b1f24; “{colour}” is not.")
    return PenChange(None if width is None else float(width), colour)


@dataclass(frozen=True)
class Viewport:
    """A window on a view.

    Attributes:
        id: names it as the source of what is drawn through it.
        linework: key of the drawing seen through it.
        box: its frame on paper, or what its shape is bounded by, mm.
        scale: paper over real.
        centre: the u, v of the view (mm, real) that lie in the middle of the box.
        number, name: of the drawing title under it.
        to_scale: whether lengths can be measured in it; not in a perspective.
        shape: one of SHAPES. A circle touches the sides of its box.
        corners: of a polygon, mm from the box's lower left corner.
        turn: by how much its contents are turned about the middle, degrees anticlockwise.
        framed: whether its outline is plotted.
        opaque: whether it hides what lies under it on the sheet.
        pen_table: the key of the pen table that it is drawn with; blank for the sheet's.
        pens: how its pens differ from those.
        title: the style of its drawing title, one of TITLES.
        title_by: by how much its title was moved by hand from where it stands by itself, mm.
        moved_marks: by the view that is marked, by how much each bubble of its mark was moved by hand, mm.
    """

    id: str
    linework: str
    box: Box
    scale: Scale
    centre: Point
    number: str = ""
    name: str = ""
    to_scale: bool = True
    shape: str = "rectangle"
    corners: tuple[Point, ...] = ()
    turn: float = 0.0
    framed: bool = False
    opaque: bool = False
    pen_table: str = ""
    pens: PenChanges = field(default_factory=PenChanges)
    title: str = "plain"
    title_by: Point = (0.0, 0.0)
    moved_marks: Mapping[str, tuple[Point, ...]] = field(default_factory=dict)

    @property
    def scale_text(self) -> str:
        """The scale as its drawing title says it."""
        return str(self.scale) if self.to_scale else NOT_TO_SCALE

    @property
    def outline(self) -> tuple[Point, ...]:
        """The corners of what is seen, on paper, mm."""
        if self.shape == "circle":
            (x, y), radius = self.box.middle, self.box.width / 2
            steps = (2 * math.pi * k / ROUND for k in range(ROUND))
            return tuple((x + radius * math.cos(a), y + radius * math.sin(a)) for a in steps)
        if self.shape == "polygon":
            return tuple((self.box.x + x, self.box.y + y) for x, y in self.corners)
        return self.box.corners

    def to_paper(self, u: float, v: float) -> Point:
        """Where a point of the view lies on the sheet, mm."""
        ratio, turn = float(self.scale.ratio), math.radians(self.turn)
        du, dv = (u - self.centre[0]) * ratio, (v - self.centre[1]) * ratio
        x, y = self.box.middle
        return x + du * math.cos(turn) - dv * math.sin(turn), y + du * math.sin(turn) + dv * math.cos(turn)


def check_viewport(viewport: Viewport) -> None:
    """Refuse a viewport that could not be seen or taken hold of.

    Raises:
        SheetError: a figure is no number, the frame is too small, or its shape is none or crosses itself.
    """
    box = viewport.box
    points = [x for corner in viewport.corners for x in corner]
    if not all(map(math.isfinite, (box.x, box.y, box.width, box.height, *viewport.centre, viewport.turn, *points))):
        raise SheetError("A viewport's place and size are numbers in mm.")
    if box.width < LEAST_VIEWPORT or box.height < LEAST_VIEWPORT:
        raise SheetError(
            f"A viewport of {box.width:g} x {box.height:g} mm is too small; "
            f"make each side {LEAST_VIEWPORT:g} mm or more."
        )
    if viewport.shape == "circle" and abs(box.width - box.height) > 1e-6:
        raise SheetError(f"A round viewport is as wide as it is high; {box.width:g} x {box.height:g} mm is not.")
    if viewport.shape == "polygon":
        _check_corners(viewport)


def _check_corners(viewport: Viewport) -> None:
    if not 3 <= len(viewport.corners) <= MOST_CORNERS:
        raise SheetError(f"A viewport's outline has 3 to {MOST_CORNERS} corners, not {len(viewport.corners)}.")
    ring = LinearRing(viewport.corners)
    if not ring.is_simple or not ring.is_valid:
        raise SheetError("The outline of a viewport may not cross or touch itself. Move a corner, or draw it anew.")
    west, south, east, north = ring.bounds
    if max(abs(west), abs(south), abs(east - viewport.box.width), abs(north - viewport.box.height)) > 1e-3:
        raise SheetError("The corners of a viewport's outline are measured from its box, and reach to its sides.")


def check_on_paper(box: Box, paper: Paper) -> None:
    """Refuse a viewport that lies where nobody would find it.

    Raises:
        SheetError: it lies wholly off the paper, or is far larger than it.
    """
    if not box.meets(Box(0.0, 0.0, paper.width, paper.height)):
        raise SheetError(f"The viewport would lie off the {paper.name} sheet. Keep a part of it on the paper.")
    if box.width > 5 * paper.width or box.height > 5 * paper.height:
        raise SheetError(f"A viewport of {box.width:g} x {box.height:g} mm is far larger than the {paper.name} sheet.")
