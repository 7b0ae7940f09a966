"""Templates: border, title block and fixed text that many sheets share, whatever the size of their paper.

A part of a template keeps to sides of the frame, and its figures are measured from them; so one template
serves every
paper: a block stays in its corner, and a strip runs from side to side.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Any, Literal, get_args

from pydantic import Field

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.schema import CLOSED, ColourOrNone, Flag, Number, Whole, parse
from drafting.sheets.fields import FIELDS
from drafting.sheets.paper import Paper

PartKind = Literal["line", "rectangle", "text", "field", "image", "revisions"]
#: The sides of the frame that a part keeps to. One that keeps to both grows with the paper.
Across = Literal["left", "middle", "right", "both"]
Up = Literal["bottom", "middle", "top", "both"]
Align = Literal["left", "middle", "right"]
#: Room that drawings keep from what is not theirs, and that is kept for their titles below them; mm.
CLEAR, TITLE_ROOM = 10.0, 22.0
#: What runs from side to side keeps at least so much between what keeps to the left and to the right; mm.
MIN_BETWEEN = 60.0
#: More parts than this are a drawing and no template.
MAX_PARTS = 300
MAX_SIDE = 3000.0

Sides = tuple[float, float, float, float]
_Place = Annotated[Number, Field(ge=-MAX_SIDE, le=MAX_SIDE)]
_Margin = Annotated[Number, Field(ge=0, le=MAX_SIDE)]
_LineWidth = Annotated[Number, Field(ge=0, le=2.0, description="Paper mm; zero for none.")]
_TextHeight = Annotated[Number, Field(ge=1.0, le=50.0, description="Height of a capital, paper mm.")]
_Words = Annotated[str, Field(max_length=500)]


@dataclass(frozen=True)
class Part:
    """One thing on a template. Figures in paper mm.

    Attributes:
        kind: what it is.
        x0, y0, x1, y1: its corners, or the ends of a line, measured from the sides that it keeps to: from the
            left and the bottom, or towards the left and downward where they are negative. One that keeps to
            both sides has its first figure from the left or bottom, and its second from the right or top.
        across, up: the sides that it keeps to, as Across and Up name them.
        width: of its line, or of the outline of its box; none where it is zero.
        fill: the colour of a rectangle; blank for none.
        colour: of its lines and words; blank for ink.
        words: of a text; the caption of a field.
        field: which of FIELDS it shows.
        size: the height of its capitals.
        min_size: down to which words that are too long shrink before they are shortened.
        lines: on how many lines they may run.
        align: where its words stand in its box.
        bold: whether the lettering is bold.
        picture: the key of an image.
    """

    __pydantic_config__ = CLOSED

    kind: PartKind
    x0: _Place
    y0: _Place
    x1: _Place
    y1: _Place
    across: Across = "right"
    up: Up = "bottom"
    width: _LineWidth = 0.0
    fill: ColourOrNone = ""
    colour: ColourOrNone = ""
    words: _Words = ""
    field: _Words = ""
    size: _TextHeight = 2.5
    min_size: _TextHeight = 1.8
    lines: Annotated[Whole, Field(ge=1, le=20)] = 1
    align: Align = "left"
    bold: Flag = False
    picture: _Words = ""

    def __post_init__(self) -> None:
        if self.kind == "field" and self.field not in FIELDS:
            raise SheetError(f"“{self.field}” is no field. Fields are {', '.join(FIELDS)}.")
        sized = self.kind != "line" and "both" not in (self.across, self.up)
        if sized and (self.x0 == self.x1 or self.y0 == self.y1):
            raise SheetError(f"{name_of(self).capitalize()} has no size. Give it a width and a height.")


@dataclass(frozen=True)
class TemplateSpec:
    """What sheets start from.

    Attributes:
        margins: from the edges of the paper to the frame: left, bottom, right, top; mm.
        frame: width of the frame's line; none where it is zero. mm.
        zones, centring: whether the border has grid reference zones and centring marks (ISO 5457).
        kept: what is not for drawings along each side of the frame: left, bottom, right, top; mm.
        parts: lowest first.
    """

    __pydantic_config__ = CLOSED

    margins: Annotated[
        tuple[_Margin, _Margin, _Margin, _Margin],
        Field(description="From the edges of the paper to the frame: left, bottom, right, top; mm."),
    ] = (20.0, 10.0, 10.0, 10.0)
    frame: _LineWidth = 0.7
    zones: Flag = True
    centring: Flag = True
    kept: Annotated[
        tuple[_Margin, _Margin, _Margin, _Margin],
        Field(
            description="What is not for drawings along each side of the frame: left, bottom, right, top; mm."
        ),
    ] = (0.0, 0.0, 0.0, 0.0)
    parts: Annotated[tuple[Part, ...], Field(max_length=MAX_PARTS)] = ()

    def needed(self) -> float:
        """How wide a frame has to be for what stands side by side in it; mm."""
        both = [p for p in self.parts if p.across == "both"]
        left = [(p, max(p.x0, p.x1)) for p in self.parts if p.across == "left"] + [(p, p.x0) for p in both]
        right = [(p, -min(p.x0, p.x1)) for p in self.parts if p.across == "right"] + [
            (p, -p.x1) for p in both
        ]
        alone = [reach for _, reach in (*left, *right)]
        beside = [
            a + b + _between(one, other) for one, a in left for other, b in right if _side_by_side(one, other)
        ]
        return max([0.0, *alone, *beside])


def _side_by_side(one: Part, other: Part) -> bool:
    """Whether two parts share some height of the sheet, whatever its size: they keep to one side and overlap
    there, or one of them runs from side to side."""
    if "both" in (one.up, other.up):
        return True
    low, high = (
        max(min(one.y0, one.y1), min(other.y0, other.y1)),
        min(max(one.y0, one.y1), max(other.y0, other.y1)),
    )
    return one.up == other.up and low <= high


def _between(one: Part, other: Part) -> float:
    """What runs from side to side is not squeezed to nothing."""
    return MIN_BETWEEN if any(p.across == "both" and p.kind != "line" for p in (one, other)) else 0.0


@dataclass(frozen=True)
class Blank:
    """An empty sheet: its paper with a template laid on it. Boxes in paper mm from the lower left corner."""

    paper: Paper
    template: TemplateSpec

    @property
    def frame(self) -> Box:
        """The frame line."""
        left, bottom, right, top = self.template.margins
        return Box(left, bottom, self.paper.width - left - right, self.paper.height - bottom - top)

    @property
    def free(self) -> Box:
        """The part that drawings have to themselves, with room for the title of the lowest."""
        left, bottom, right, top = self.template.kept
        frame = self.frame
        x, low = frame.x + left + CLEAR, frame.y + bottom + TITLE_ROOM
        return Box(x, low, frame.right - right - CLEAR - x, frame.top - top - CLEAR - low)

    @cached_property
    def shrink(self) -> float:
        """By how much parts are narrower on a paper whose frame is too narrow for them."""
        needed = self.template.needed()
        return min(1.0, self.frame.width / needed) if needed else 1.0

    def ends_of(self, part: Part) -> Sides:
        """Where the two ends of a part lie: x and y of each."""
        frame, narrow = self.frame, self.shrink
        x0, x1 = _held(part.across, _ACROSS, part.x0 * narrow, part.x1 * narrow, frame.x, frame.right)
        y0, y1 = _held(part.up, _UP, part.y0, part.y1, frame.y, frame.top)
        return x0, y0, x1, y1

    def box_of(self, part: Part) -> Box:
        """What a part covers."""
        x0, y0, x1, y1 = self.ends_of(part)
        # What runs between two sides has no size where they are too near.
        x1, y1 = (max(x0, x1) if part.across == "both" else x1), (max(y0, y1) if part.up == "both" else y1)
        return Box(min(x0, x1), min(y0, y1), abs(x1 - x0), abs(y1 - y0))


def parse_template(given: Any) -> TemplateSpec:
    """From plain data, as `dump` gives it.

    Raises:
        SheetError: something that no template has, or a figure out of bounds.
    """
    template: TemplateSpec = parse(TemplateSpec, given, "template", SheetError)
    return template


def check_blank(blank: Blank, name: str) -> None:
    """Refuse a template, by its name, on a paper where a part of it would be cut off, or nothing would be
    left for drawings.

    Raises:
        SheetError: names the part and the paper.
    """
    paper = Box(0.0, 0.0, blank.paper.width, blank.paper.height)
    where = f"the {blank.paper.name} sheet of {paper.width:g} x {paper.height:g} mm"
    if blank.free.width < CLEAR or blank.free.height < CLEAR:
        raise SheetError(f"“{name}” leaves no room for drawings on {where}. Choose a larger paper.")
    for part in blank.template.parts:
        box = blank.box_of(part)
        if min(box.x, box.y) < -1e-6 or box.right > paper.width + 1e-6 or box.top > paper.height + 1e-6:
            raise SheetError(
                f"On {where}, {name_of(part)} of the template “{name}” would lie off the paper. "
                "Move it, or choose a larger paper."
            )


def name_of(part: Part) -> str:
    """A part in words."""
    if part.kind == "field":
        return f"the field “{part.words or FIELDS[part.field].caption}”"
    if part.kind == "text":
        return f"the text “{part.words[:30]}”"
    return (
        "the revision table" if part.kind == "revisions" else f"a{'n' * (part.kind == 'image')} {part.kind}"
    )


_ACROSS, _UP = get_args(Across), get_args(Up)


def _held(
    side: str, sides: tuple[str, ...], a: float, b: float, low: float, high: float
) -> tuple[float, float]:
    first, middle, last, _both = sides
    if side == first:
        return low + a, low + b
    if side == middle:
        return (low + high) / 2 + a, (low + high) / 2 + b
    return (high + a, high + b) if side == last else (low + a, high + b)
