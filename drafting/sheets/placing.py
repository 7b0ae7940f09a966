"""Placing a view on a sheet: where, how large, and at which standard scale."""

from __future__ import annotations

from collections.abc import Iterable

from drafting.errors import SheetError
from drafting.geometry.boxes import Box
from drafting.sheets.scale import LADDER, Scale, largest_that_fits
from drafting.sheets.template import CLEAR, TITLE_ROOM, Blank
from drafting.sheets.viewport import Viewport

#: A viewport is this much larger than its drawing on each side, so that no line lies on its edge; mm.
MARGIN = 2.0
#: A space narrower or lower than this is none that a drawing is put into. mm.
MIN_SPACE = 30.0

Extents = tuple[float, float, float, float]
#: What is placed before it has been drawn is taken to be so large; real mm.
UNKNOWN_EXTENTS: Extents = (0.0, 0.0, 10_000.0, 10_000.0)


def free_spaces(blank: Blank, taken: Iterable[Box]) -> list[Box]:
    """The empty rectangles of a sheet's free area that cannot be made larger, the largest first.

    Drawings keep their distance from each other, and leave room for the titles below them.
    """
    spaces = [blank.free]
    for box in taken:
        wall = Box(box.x - CLEAR, box.y - TITLE_ROOM, box.width + 2 * CLEAR, box.height + 2 * TITLE_ROOM)
        cut = [
            piece for space in spaces for piece in (_around(space, wall) if space.meets(wall) else (space,))
        ]
        large = [s for s in dict.fromkeys(cut) if s.width >= MIN_SPACE and s.height >= MIN_SPACE]
        spaces = [s for s in large if not any(o.holds(s) for o in large if o != s)]
    return sorted(spaces, key=lambda s: -s.width * s.height)


def _around(space: Box, wall: Box) -> tuple[Box, ...]:
    """What is left of a space on the four sides of a wall in it; a side without room has no width or
    height."""
    return (
        Box(space.x, space.y, wall.x - space.x, space.height),
        Box(wall.right, space.y, space.right - wall.right, space.height),
        Box(space.x, space.y, space.width, wall.y - space.y),
        Box(space.x, wall.top, space.width, space.top - wall.top),
    )


def space_for(blank: Blank, taken: Iterable[Box], at: tuple[float, float] | None = None) -> Box:
    """The largest empty space, or the largest that holds a point; the whole free area where there is none."""
    spaces = free_spaces(blank, taken)
    if at is not None:
        x, y = at
        spaces = [s for s in spaces if s.x <= x <= s.right and s.y <= y <= s.top]
    return spaces[0] if spaces else blank.free


def place_view(
    extents: Extents | None,
    blank: Blank,
    at: tuple[float, float] | None = None,
    scale: Scale | None = None,
    taken: Iterable[Box] = (),
    ladder: tuple[Scale, ...] = LADDER,
) -> Viewport:
    """A viewport that shows all of a drawing, about a point of the sheet or in the middle of an empty space.

    Args:
        extents: least u, v and greatest u, v of the drawing, real mm; None for a drawing not known yet.
        scale: the largest of the ladder that fits the space where none is given.
        taken: boxes of the viewports that stand on the sheet already.

    Raises:
        SheetError: at this scale the drawing is larger than the sheet's frame.
    """
    space, frame = space_for(blank, taken, at), blank.frame
    u0, v0, u1, v1 = extents or UNKNOWN_EXTENTS
    fitting = largest_that_fits(u1 - u0, v1 - v0, space.width - 2 * MARGIN, space.height - 2 * MARGIN, ladder)
    wanted = scale or fitting
    width = (u1 - u0) * float(wanted.ratio) + 2 * MARGIN
    height = (v1 - v0) * float(wanted.ratio) + 2 * MARGIN
    if width > frame.width or height > frame.height:
        raise SheetError(
            f"At {wanted} the drawing is {width:.0f} x {height:.0f} mm and does not fit {blank.paper.name}. "
            f"Take {fitting} or a larger paper."
        )
    within = space if width <= space.width and height <= space.height else frame
    x, y = at or space.middle
    left = min(max(x - width / 2, within.x), within.right - width)
    bottom = min(max(y - height / 2, within.y), within.top - height)
    return Viewport("", "", Box(left, bottom, width, height), wanted, ((u0 + u1) / 2, (v0 + v1) / 2))
