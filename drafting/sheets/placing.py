"""Placing a view on a sheet: where, how large, and at which standard scale."""

from __future__ import annotations

from drafting.errors import SheetError
from drafting.sheets.paper import Paper
from drafting.sheets.scale import Scale, largest_that_fits
from drafting.sheets.sheet import Box, Viewport, block_of, frame_of

#: Room that a drawing keeps from the frame, and for its title below it; mm.
CLEAR, TITLE_ROOM = 10.0, 22.0
#: A viewport is this much larger than its drawing on each side, so that no line lies on its edge; mm.
RIM = 2.0

Extents = tuple[float, float, float, float]


def free_area(paper: Paper) -> Box:
    """The part of a sheet that drawings have to themselves: within the frame, above the title block."""
    frame, block = frame_of(paper), block_of(paper)
    low = block.top + TITLE_ROOM
    return Box(frame.x + CLEAR, low, frame.width - 2 * CLEAR, frame.top - CLEAR - low)


def place_view(
    extents: Extents | None, paper: Paper, at: tuple[float, float] | None = None, scale: Scale | None = None
) -> Viewport:
    """A viewport that shows all of a drawing, about a point of the sheet or in the middle of its free area.

    Args:
        extents: least u, v and greatest u, v of the drawing, real mm; None for a drawing not known yet.
        scale: the largest of the ladder that fits the free area where none is given.

    Raises:
        SheetError: at this scale the drawing is larger than the sheet's frame.
    """
    free, frame = free_area(paper), frame_of(paper)
    u0, v0, u1, v1 = extents or (0.0, 0.0, 10_000.0, 10_000.0)
    room = free.width - 2 * RIM, free.height - 2 * RIM
    fitting = largest_that_fits(u1 - u0, v1 - v0, *room)
    scale = scale or fitting
    width = (u1 - u0) * float(scale.ratio) + 2 * RIM
    height = (v1 - v0) * float(scale.ratio) + 2 * RIM
    if width > frame.width or height > frame.height:
        raise SheetError(
            f"At {scale} the drawing is {width:.0f} x {height:.0f} mm and does not fit {paper.name}. "
            f"Take {fitting} or a larger paper."
        )
    x, y = at or (free.x + free.width / 2, free.y + free.height / 2)
    left = min(max(x - width / 2, frame.x), frame.right - width)
    bottom = min(max(y - height / 2, frame.y), frame.top - height)
    return Viewport("", "", Box(left, bottom, width, height), scale, ((u0 + u1) / 2, (v0 + v1) / 2))
