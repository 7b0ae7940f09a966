"""Templates: border, title block and fixed text that many sheets share, whatever the size of their paper.

A part of a template keeps to sides of the frame, and its figures are measured from them; so one template serves every
paper: a block stays in its corner, and a strip runs from side to side.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import MISSING, asdict, dataclass, fields
from functools import cached_property
from typing import Any

from drafting.errors import SheetError
from drafting.sheets.fields import FIELDS
from drafting.sheets.paper import Paper
from drafting.sheets.viewport import Box

KINDS = ("line", "rectangle", "text", "field", "image", "revisions")
#: The sides of the frame that a part keeps to. One that keeps to both grows with the paper.
ACROSS, UP = ("left", "middle", "right", "both"), ("bottom", "middle", "top", "both")
ALIGN = ("left", "middle", "right")
#: Room that drawings keep from what is not theirs, and that is kept for their titles below them; mm.
CLEAR, TITLE_ROOM = 10.0, 22.0
#: What runs from side to side keeps at least so much between what keeps to the left and to the right; mm.
LEAST_BETWEEN = 60.0
#: More parts than this are a drawing and no template.
MOST_PARTS = 300
#: The least and the greatest that a figure of a part can be, mm (lines: how many).
_BOUNDS = {"width": (0.0, 2.0), "size": (1.0, 50.0), "least": (1.0, 50.0), "lines": (1, 20)}
_FAR = 3000.0
_COLOUR = re.compile(r"#[0-9a-f]{6}")
_MOST_WORDS = 500

Sides = tuple[float, float, float, float]


@dataclass(frozen=True)
class Part:
    """One thing on a template. Figures in paper mm.

    Attributes:
        kind: one of KINDS.
        x0, y0, x1, y1: its corners, or the ends of a line, measured from the sides that it keeps to: from the left
            and the bottom, or towards the left and downward where they are negative. One that keeps to both sides
            has its first figure from the left or bottom, and its second from the right or top.
        across, up: the sides that it keeps to, of ACROSS and UP.
        width: of its line, or of the outline of its box; none where it is nought.
        fill: the colour of a rectangle; blank for none.
        colour: of its lines and words; blank for ink.
        words: of a text; the caption of a field.
        field: which of FIELDS it shows.
        size: the height of its capitals.
        least: down to which words that are too long shrink before they are shortened.
        lines: on how many lines they may run.
        align: one of ALIGN.
        bold: whether the lettering is bold.
        picture: the key of an image.
    """

    kind: str
    x0: float
    y0: float
    x1: float
    y1: float
    across: str = "right"
    up: str = "bottom"
    width: float = 0.0
    fill: str = ""
    colour: str = ""
    words: str = ""
    field: str = ""
    size: float = 2.5
    least: float = 1.8
    lines: int = 1
    align: str = "left"
    bold: bool = False
    picture: str = ""


@dataclass(frozen=True)
class Template:
    """What sheets start from.

    Attributes:
        name: for people.
        margins: from the edges of the paper to the frame: left, bottom, right, top; mm.
        frame: width of the frame's line; none where it is nought. mm.
        zones, centring: whether the border has grid reference zones and centring marks (ISO 5457).
        kept: what is not for drawings along each side of the frame: left, bottom, right, top; mm.
        parts: lowest first.
    """

    name: str
    margins: Sides = (20.0, 10.0, 10.0, 10.0)
    frame: float = 0.7
    zones: bool = True
    centring: bool = True
    kept: Sides = (0.0, 0.0, 0.0, 0.0)
    parts: tuple[Part, ...] = ()

    @classmethod
    def from_dict(cls, given: Mapping[str, Any]) -> Template:
        """From plain data, as `as_dict` gives it.

        Raises:
            SheetError: something that no template has, or a figure out of bounds.
        """
        known = _known(cls, given, "A template")
        for side in ("margins", "kept"):
            if side in known:
                known[side] = tuple(_figure(f"A template's {side}", x, 0.0, _FAR) for x in _list(side, known[side], 4))
        if "frame" in known:
            known["frame"] = _figure("The frame's line", known["frame"], *_BOUNDS["width"])
        parts = _list("parts", known.get("parts", ()))
        if len(parts) > MOST_PARTS:
            raise SheetError(f"A template has at most {MOST_PARTS} parts, not {len(parts)}.")
        return cls(**{**known, "parts": tuple(_part(part) for part in parts)})

    def as_dict(self) -> dict[str, Any]:
        """Plain data; a part without what it has as usual."""
        usual = {f.name: f.default for f in fields(Part)}
        parts = [{k: v for k, v in asdict(part).items() if v != usual[k] or k == "kind"} for part in self.parts]
        return {**asdict(self), "margins": list(self.margins), "kept": list(self.kept), "parts": parts}

    def needed(self) -> float:
        """How wide a frame has to be for what stands side by side in it; mm."""
        both = [p for p in self.parts if p.across == "both"]
        left = [(p, max(p.x0, p.x1)) for p in self.parts if p.across == "left"] + [(p, p.x0) for p in both]
        right = [(p, -min(p.x0, p.x1)) for p in self.parts if p.across == "right"] + [(p, -p.x1) for p in both]
        alone = [reach for _, reach in (*left, *right)]
        beside = [a + b + _between(one, other) for one, a in left for other, b in right if _side_by_side(one, other)]
        return max([0.0, *alone, *beside])


def _side_by_side(one: Part, other: Part) -> bool:
    """Whether two parts share some height of the sheet, whatever its size: they keep to one side and overlap there, or
    one of them runs from side to side."""
    if "both" in (one.up, other.up):
        return True
    low, high = max(min(one.y0, one.y1), min(other.y0, other.y1)), min(max(one.y0, one.y1), max(other.y0, other.y1))
    return one.up == other.up and low <= high


def _between(one: Part, other: Part) -> float:
    """What runs from side to side is not squeezed to nothing."""
    return LEAST_BETWEEN if any(p.across == "both" and p.kind != "line" for p in (one, other)) else 0.0


@dataclass(frozen=True)
class Blank:
    """An empty sheet: its paper with a template laid on it. Boxes in paper mm from the lower left corner."""

    paper: Paper
    template: Template

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
        x0, x1 = _held(part.across, ACROSS, part.x0 * narrow, part.x1 * narrow, frame.x, frame.right)
        y0, y1 = _held(part.up, UP, part.y0, part.y1, frame.y, frame.top)
        return x0, y0, x1, y1

    def box_of(self, part: Part) -> Box:
        """What a part covers."""
        x0, y0, x1, y1 = self.ends_of(part)
        # What runs between two sides has no size where they are too near.
        x1, y1 = (max(x0, x1) if part.across == "both" else x1), (max(y0, y1) if part.up == "both" else y1)
        return Box(min(x0, x1), min(y0, y1), abs(x1 - x0), abs(y1 - y0))


def check_blank(blank: Blank) -> None:
    """Refuse a template on a paper where a part of it would be cut off, or nothing would be left for drawings.

    Raises:
        SheetError: names the part and the paper.
    """
    paper = Box(0.0, 0.0, blank.paper.width, blank.paper.height)
    where = f"the {blank.paper.name} sheet of {paper.width:g} x {paper.height:g} mm"
    if blank.free.width < CLEAR or blank.free.height < CLEAR:
        raise SheetError(f"“{blank.template.name}” leaves no room for drawings on {where}. Take a larger paper.")
    for part in blank.template.parts:
        box = blank.box_of(part)
        if min(box.x, box.y) < -1e-6 or box.right > paper.width + 1e-6 or box.top > paper.height + 1e-6:
            raise SheetError(
                f"On {where}, {name_of(part)} of the template “{blank.template.name}” would lie off the paper. "
                "Move it, or take a larger paper."
            )


def name_of(part: Part) -> str:
    """A part in words."""
    if part.kind == "field":
        return f"the field “{part.words or FIELDS[part.field].caption}”"
    if part.kind == "text":
        return f"the text “{part.words[:30]}”"
    return "the revision table" if part.kind == "revisions" else f"a{'n' * (part.kind == 'image')} {part.kind}"


def _held(side: str, sides: tuple[str, ...], a: float, b: float, low: float, high: float) -> tuple[float, float]:
    first, middle, last, _both = sides
    if side == first:
        return low + a, low + b
    if side == middle:
        return (low + high) / 2 + a, (low + high) / 2 + b
    return (high + a, high + b) if side == last else (low + a, high + b)


def _part(given: Any) -> Part:
    known = _known(Part, given, "A part of a template")
    kind = known["kind"]
    if kind not in KINDS:
        raise SheetError(f"“{kind}” is no part of a template. Parts are {', '.join(KINDS)}.")
    for name in ("x0", "y0", "x1", "y1"):
        known[name] = _figure(f"A {kind}'s {name}", known[name], -_FAR, _FAR)
    for name, (least, most) in _BOUNDS.items():
        if name in known:
            known[name] = type(least)(_figure(f"A {kind}'s {name}", known[name], least, most))
    for name, choices in (("across", ACROSS), ("up", UP), ("align", ALIGN)):
        if known.get(name, choices[0]) not in choices:
            raise SheetError(f"A {kind}'s “{name}” is one of {', '.join(choices)}; “{known[name]}” is not.")
    for name in ("fill", "colour"):
        if known.get(name) and not _COLOUR.fullmatch(str(known[name])):
            raise SheetError(f"A {kind} has a colour such as #1b1f24; “{known[name]}” is not.")
    for name in ("words", "field", "picture"):
        if not isinstance(known.get(name, ""), str) or len(known.get(name, "")) > _MOST_WORDS:
            raise SheetError(f"A {kind}'s {name} are at most {_MOST_WORDS} letters.")
    if kind == "field" and known.get("field") not in FIELDS:
        raise SheetError(f"“{known.get('field', '')}” is no field. Fields are {', '.join(FIELDS)}.")
    part = Part(**{**known, "bold": bool(known.get("bold", False))})
    if kind != "line" and "both" not in (part.across, part.up) and (part.x0 == part.x1 or part.y0 == part.y1):
        raise SheetError(f"{name_of(part).capitalize()} has no size. Give it a width and a height.")
    return part


def _known(of: type, given: Any, what: str) -> dict[str, Any]:
    if not isinstance(given, Mapping):
        raise SheetError(f"{what} is given by names and values.")
    names = {f.name: f for f in fields(of)}
    unknown = set(given) - set(names)
    if unknown:
        raise SheetError(f"{what} has no {', '.join(sorted(unknown))}.")
    missing = [name for name, f in names.items() if f.default is MISSING and name not in given]
    if missing:
        raise SheetError(f"{what} needs {', '.join(missing)}.")
    return dict(given)


def _list(name: str, given: Any, count: int | None = None) -> list[Any]:
    if not isinstance(given, list | tuple) or (count is not None and len(given) != count):
        raise SheetError(f"A template's {name} are a list{f' of {count} figures' if count else ''}.")
    return list(given)


def _figure(what: str, given: Any, least: float, most: float) -> float:
    if isinstance(given, bool) or not isinstance(given, int | float) or not least <= given <= most:
        raise SheetError(f"{what} is a number from {least:g} to {most:g}; “{given}” is not.")
    return float(given)
