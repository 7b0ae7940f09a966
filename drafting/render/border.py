"""The border of a sheet: frame, centring marks and grid reference zones (ISO 5457)."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import pairwise

from drafting.geometry.boxes import Box
from drafting.render.items import Path, Text
from drafting.sheets.template import Blank
from drafting.styles.pens import CENTRING_PEN, INK, ZONE_PEN, Pen

#: ISO 5457: zones are 50 mm long, counted from the centring marks, in a border 5 mm wide outside the frame.
ZONE, BORDER = 50.0, 5.0
#: ISO 5457: centring marks run from the zone border to 5 mm inside the frame.
MARK_INSIDE = 5.0
LETTERS = "ABCDEFGHJKLMNPQRSTUVWXYZ"  # I and O are not used
ZONE_LETTERING = 2.5
LAYER = "Border"


def border_items(blank: Blank) -> Iterator[Path | Text]:
    """What a template's border is of: zones, centring marks, and the frame over them."""
    if blank.template.zones:
        yield from _zones(blank)
    if blank.template.centring:
        yield from _centring(blank)
    if blank.template.frame:
        yield Path(blank.frame.corners, Pen(blank.template.frame), LAYER, closed=True)


def _zones(blank: Blank) -> Iterator[Path | Text]:
    frame, outer = blank.frame, _outer(blank)
    yield Path(outer.corners, ZONE_PEN, LAYER, closed=True)
    across = _divisions(frame.x, frame.right, blank.paper.width / 2)
    down = _divisions(frame.y, frame.top, blank.paper.height / 2)
    for x in across[1:-1]:
        for a, b in ((frame.top, outer.top), (outer.y, frame.y)):
            yield _line((x, a), (x, b), ZONE_PEN)
    for y in down[1:-1]:
        for a, b in ((outer.x, frame.x), (frame.right, outer.right)):
            yield _line((a, y), (b, y), ZONE_PEN)
    lower = ZONE_LETTERING / 2
    for i, (a, b) in enumerate(pairwise(across)):
        for y in (frame.top + BORDER / 2, frame.y - BORDER / 2):
            yield _label(str(i + 1), ((a + b) / 2, y - lower))
    for i, (a, b) in enumerate(pairwise(down[::-1])):
        for x in (frame.x - BORDER / 2, frame.right + BORDER / 2):
            yield _label(LETTERS[i % len(LETTERS)], (x, (a + b) / 2 - lower))


def _centring(blank: Blank) -> Iterator[Path]:
    frame, outer = blank.frame, _outer(blank)
    middle_x, middle_y = blank.paper.width / 2, blank.paper.height / 2
    for start, end in (
        ((middle_x, outer.y), (middle_x, frame.y + MARK_INSIDE)),
        ((middle_x, outer.top), (middle_x, frame.top - MARK_INSIDE)),
        ((outer.x, middle_y), (frame.x + MARK_INSIDE, middle_y)),
        ((outer.right, middle_y), (frame.right - MARK_INSIDE, middle_y)),
    ):
        yield _line(start, end, CENTRING_PEN)


def _outer(blank: Blank) -> Box:
    """The outer line of the zones; at the edge of the paper where the frame stands too near to it."""
    frame, paper = blank.frame, blank.paper
    x, y = max(frame.x - BORDER, 0.0), max(frame.y - BORDER, 0.0)
    return Box(x, y, min(frame.right + BORDER, paper.width) - x, min(frame.top + BORDER, paper.height) - y)


def _divisions(low: float, high: float, middle: float) -> list[float]:
    """Where zones begin and end along one side: every ZONE from the middle; what is left over widens the last
    ones."""
    steps = int((min(middle - low, high - middle) - ZONE / 2) // ZONE)
    return [low, *(middle + ZONE * k for k in range(-steps, steps + 1)), high]


def _line(a: tuple[float, float], b: tuple[float, float], pen: Pen) -> Path:
    return Path((a, b), pen, LAYER)


def _label(text: str, at: tuple[float, float]) -> Text:
    return Text(at, text, ZONE_LETTERING, INK, anchor="middle", layer=LAYER)
