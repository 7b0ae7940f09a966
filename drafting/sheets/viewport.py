"""Viewports: windows of any shape on a sheet, through which views are seen at a true scale."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

from shapely import LinearRing

from drafting.errors import SheetError
from drafting.geometry.boxes import Box, Point
from drafting.shading.appearance import LINES_ONLY, Appearance
from drafting.shading.areas import ShadowAreas
from drafting.shading.window import Window
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale
from drafting.sheets.words import ENGLISH, SheetWords
from drafting.styles.pen_table import PenChanges
from drafting.styles.redrawn import Redrawn

#: A viewport narrower or lower than this cannot be taken hold of. mm.
MIN_VIEWPORT = 2.0
Shape = Literal["rectangle", "circle", "polygon"]
SHAPES: tuple[Shape, ...] = get_args(Shape)
#: Drawing titles: number, name and scale; with a scale bar; with a scale bar and a north point on plans;
#: none.
TitleStyle = Literal["plain", "bar", "north", "none"]
TITLE_STYLES: tuple[TitleStyle, ...] = get_args(TitleStyle)
#: Sides of the polygon that a circle is drawn as: on a viewport of 500 mm it is within 0.02 mm of round.
CIRCLE_SIDES = 256
MAX_CORNERS = 200


@dataclass(frozen=True)
class FoundTouchUp:
    """A touch-up of what is seen through a viewport, by its id; None where it no longer finds there what it
    chooses."""

    id: str
    redrawn: Redrawn | None


@dataclass(frozen=True)
class TouchedUp:
    """What is drawn otherwise in a viewport than in its view's drawing.

    Attributes:
        touch_ups: in the order in which they were made.
        simplified: what is left out for its scale; None where nothing is.
        tones: whether hatches turn to fills of their tone.
    """

    touch_ups: tuple[FoundTouchUp, ...] = ()
    simplified: Redrawn | None = None
    tones: bool = False

    @property
    def redrawn(self) -> tuple[Redrawn, ...]:
        """What is drawn otherwise: what was done by hand goes over what a rule leaves out."""
        made = [self.simplified, *(each.redrawn for each in self.touch_ups)]
        return tuple(each for each in made if each is not None)


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
        title: the style of its drawing title, one of TITLE_STYLES.
        title_offset: by how much its title was moved by hand from where it stands by itself, mm.
        mark_offsets: by the view that is marked, by how much each bubble of its mark was moved by hand, mm.
        room_offsets: by the id of a room, by how much its name was moved by hand, mm.
        appearance: whether it shows lines, colours or light.
        picture: the key of the picture under its lines; blank for none.
        touched: what is drawn otherwise in it.
        shadow: areas of shadow under its lines; None for none.
        words: in which its title is written.
    """

    id: str
    linework: str
    box: Box
    scale: Scale
    centre: Point
    number: str = ""
    name: str = ""
    to_scale: bool = True
    shape: Shape = "rectangle"
    corners: tuple[Point, ...] = ()
    turn: float = 0.0
    framed: bool = False
    opaque: bool = False
    pen_table: str = ""
    pens: PenChanges = field(default_factory=PenChanges)
    title: TitleStyle = "plain"
    title_offset: Point = (0.0, 0.0)
    mark_offsets: Mapping[str, tuple[Point, ...]] = field(default_factory=dict)
    room_offsets: Mapping[str, Point] = field(default_factory=dict)
    appearance: Appearance = LINES_ONLY
    picture: str = ""
    touched: TouchedUp = TouchedUp()
    shadow: ShadowAreas | None = None
    words: SheetWords = ENGLISH

    @property
    def scale_text(self) -> str:
        """The scale as its drawing title says it."""
        return str(self.scale) if self.to_scale else self.words.not_to_scale

    @property
    def subtitle(self) -> str:
        """What its drawing title says under the name: the scale, and where the sun casts shadows, when."""
        sun = self.words.sun_of(self.appearance.light) if self.appearance.has_picture else ""
        return f"{self.scale_text}, {sun}" if sun else self.scale_text

    @property
    def outline(self) -> tuple[Point, ...]:
        """The corners of what is seen, on paper, mm."""
        if self.shape == "circle":
            (x, y), radius = self.box.middle, self.box.width / 2
            steps = (2 * math.pi * k / CIRCLE_SIDES for k in range(CIRCLE_SIDES))
            return tuple((x + radius * math.cos(a), y + radius * math.sin(a)) for a in steps)
        if self.shape == "polygon":
            return tuple((self.box.x + x, self.box.y + y) for x, y in self.corners)
        return self.box.corners

    @property
    def window(self) -> Window:
        """What its box frames of the view."""
        return Window(self.box.width, self.box.height, float(self.scale.ratio), self.centre, self.turn)

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
    if not all(
        map(math.isfinite, (box.x, box.y, box.width, box.height, *viewport.centre, viewport.turn, *points))
    ):
        raise SheetError("A viewport's place and size are numbers in mm.")
    if box.width < MIN_VIEWPORT or box.height < MIN_VIEWPORT:
        raise SheetError(
            f"A viewport of {box.width:g} x {box.height:g} mm is too small; "
            f"make each side {MIN_VIEWPORT:g} mm or more."
        )
    if viewport.shape == "circle" and abs(box.width - box.height) > 1e-6:
        raise SheetError(
            f"A round viewport is as wide as it is high; {box.width:g} x {box.height:g} mm is not."
        )
    if viewport.shape == "polygon":
        _check_corners(viewport)


def _check_corners(viewport: Viewport) -> None:
    if not 3 <= len(viewport.corners) <= MAX_CORNERS:
        raise SheetError(f"A viewport's outline has 3 to {MAX_CORNERS} corners, not {len(viewport.corners)}.")
    ring = LinearRing(viewport.corners)
    if not ring.is_simple or not ring.is_valid:
        raise SheetError(
            "The outline of a viewport may not cross or touch itself. Move a corner, or draw it anew."
        )
    west, south, east, north = ring.bounds
    if max(abs(west), abs(south), abs(east - viewport.box.width), abs(north - viewport.box.height)) > 1e-3:
        raise SheetError(
            "The corners of a viewport's outline are measured from its box, and reach to its sides."
        )


def check_on_paper(box: Box, paper: Paper) -> None:
    """Refuse a viewport that lies where nobody would find it.

    Raises:
        SheetError: it lies wholly off the paper, or is far larger than it.
    """
    if not box.meets(Box(0.0, 0.0, paper.width, paper.height)):
        raise SheetError(
            f"The viewport would lie off the {paper.name} sheet. Keep a part of it on the paper."
        )
    if box.width > 5 * paper.width or box.height > 5 * paper.height:
        raise SheetError(
            f"A viewport of {box.width:g} x {box.height:g} mm is far larger than the {paper.name} sheet."
        )
