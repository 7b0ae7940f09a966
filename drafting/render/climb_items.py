"""What is written on flights and ramps."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

from drafting.render.items import Fill, Text
from drafting.schema import Colour
from drafting.sheets.climb_tags import ClimbTag
from drafting.styles.lettering import text_width
from drafting.styles.pens import INK, PAPER

LAYER = "Stairs and ramps"
#: Lettering; from the foot of the flight and from its walking line, and kept clear about it; mm.
SIZE, FROM_FOOT, OFF, MARGIN = 1.8, 1.2, 0.9, 0.3


def climb_items(
    tags: Iterable[ClimbTag], source: str, ground_colour: Colour = PAPER
) -> Iterator[Fill | Text]:
    """The words of each, along its way from the foot, beside the walking line, on the colour of the floor."""
    for tag in tags:
        (wx, wy), half = tag.way, text_width(tag.text, SIZE) / 2
        # Read from below or from the right.
        turn = math.degrees(math.atan2(wy, wx))
        turn = turn - 180.0 if turn > 90.0 + 1e-6 else turn + 180.0 if turn <= -90.0 + 1e-6 else turn
        ux, uy = math.cos(math.radians(turn)), math.sin(math.radians(turn))
        above = max(tag.width / 4, OFF + SIZE / 2)
        along = half + FROM_FOOT
        # To the left of the way up, where the break line leaves more of the flight.
        x, y = tag.foot[0] + wx * along - wy * above, tag.foot[1] + wy * along + wx * above

        wide, high = half + MARGIN, SIZE / 2 + MARGIN
        corners = ((-wide, -high), (wide, -high), (wide, high), (-wide, high))
        ground = tuple((x + ux * a - uy * b, y + uy * a + ux * b) for a, b in corners)
        base = (x + uy * SIZE / 2, y - ux * SIZE / 2)
        yield Fill((ground,), ground_colour, LAYER, source)
        yield Text(base, tag.text, SIZE, INK, anchor="middle", turn=turn, layer=LAYER, viewport=source)
