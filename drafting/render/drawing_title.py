"""The title under a drawing: its number, name and scale, the hour of its sun, and where wanted a scale bar
and a north point."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.geometry.boxes import Box, Point
from drafting.render.items import Path, Text
from drafting.render.mark_items import NORTH, Item, bar_width, north_items, scale_bar_items
from drafting.sheets.viewport import Viewport
from drafting.styles.lettering import text_width
from drafting.styles.pens import INK, TITLE_PEN

#: A drawing title begins this far below its viewport; mm.
TITLE_DROP = 4.0
NUMBER_SIZE, NAME_SIZE, SCALE_SIZE = 5.0, 3.5, 2.5
#: Between the words and a scale bar, and between that and a north point; mm.
GAP = 8.0
#: How far a title reaches below its rule; mm.
HEIGHT = 11.0
LAYER = "Drawing titles"


def drawing_title_items(
    viewport: Viewport, north: Point | None = None, below: float = math.inf
) -> Iterator[Item]:
    """The title of a viewport, on a rule as long as its words need.

    Args:
        north: the way to it on paper, for plans.
        below: the height on the sheet that what stands about the drawing reaches down to, mm.
    """
    if not _has_title(viewport):
        return
    x, rule = _corner(viewport, below)
    indent, end = _stops(viewport, x)
    source = viewport.id
    yield Path(((x, rule), (end, rule)), TITLE_PEN, LAYER, source)
    for text, left, drop, size, bold in (
        (viewport.number, x, 2.0, NUMBER_SIZE, True),
        (viewport.name, indent, 2.0, NAME_SIZE, True),
        (viewport.subtitle, indent, 4.0 + NAME_SIZE, SCALE_SIZE, False),
    ):
        yield Text((left, rule - drop - size), text, size, INK, bold=bold, layer=LAYER, viewport=source)
    if _has_bar(viewport):
        yield from scale_bar_items((end + GAP, rule - 9.0), viewport.scale, source)
        end += GAP + bar_width(viewport.scale)
    if viewport.title == "north" and north:
        yield from north_items((end + GAP + NORTH, rule - 6.0), north, source)


def title_box(viewport: Viewport, north: Point | None = None, below: float = math.inf) -> Box | None:
    """What the title covers; None for a viewport without one."""
    if not _has_title(viewport):
        return None
    x, rule = _corner(viewport, below)
    end = _stops(viewport, x)[1]
    end += GAP + bar_width(viewport.scale) if _has_bar(viewport) else 0.0
    end += GAP + 2 * NORTH if viewport.title == "north" and north else 0.0
    return Box(x, rule - HEIGHT, end - x, HEIGHT)


def _has_title(viewport: Viewport) -> bool:
    return viewport.title != "none" and bool(viewport.number or viewport.name)


def _has_bar(viewport: Viewport) -> bool:
    return viewport.title in ("bar", "north") and viewport.to_scale


def _corner(viewport: Viewport, below: float) -> Point:
    """Where the title begins: below its viewport and what stands there, or where it was moved to by hand."""
    dx, dy = viewport.title_offset
    if dx or dy:
        below = math.inf
    return viewport.box.x + dx, min(viewport.box.y, below) - TITLE_DROP + dy


def _stops(viewport: Viewport, x: float) -> tuple[float, float]:
    """Where the name begins and where the words end."""
    indent = x + text_width(viewport.number, NUMBER_SIZE, bold=True) + 4.0 if viewport.number else x
    name, scale = text_width(viewport.name, NAME_SIZE, bold=True), text_width(viewport.subtitle, SCALE_SIZE)
    return indent, indent + max(name, scale) + 2.0
