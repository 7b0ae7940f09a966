"""Names of rooms as they are drawn."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from drafting.geometry.boxes import Box
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Fill, Text
from drafting.schema import Colour
from drafting.sheets.room_tags import RoomTag
from drafting.styles.lettering import MIN_TEXT_HEIGHT, fit, text_width
from drafting.styles.pens import INK, PAPER

LAYER = "Rooms"
#: What rooms are filled with where that is wanted: light enough for lines and lettering over it.
ROOM_TINT = "#f3ead9"
#: Lettering of the name, and of number and area; between the lines, and kept clear about them; mm.
NAME, SMALL, GAP, MARGIN = 2.5, 2.0, 1.2, 0.5


def room_items(tags: Iterable[RoomTag], source: str, ground_colour: Colour = PAPER) -> Iterator[Fill | Text]:
    """The number, name and area of each room, one below the other about its place, on the colour of the
    floor."""
    for tag in tags:
        small = f"{tag.number}  {tag.area}" if tag.number and not tag.name else tag.area
        number = tag.number if tag.name else ""
        wanted = ((number, SMALL, False), (tag.name, NAME, True), (small, SMALL, False))
        lines = [line for line in wanted if line[0]]
        x, y = tag.at
        height = sum(size for _, size, _ in lines) + GAP * (len(lines) - 1)
        base = y + height / 2
        texts = []
        for words, size, bold in lines:
            base -= size
            # A name is never cut short: at the least height it may be wider than its room.
            least = text_width(words, MIN_TEXT_HEIGHT, bold)
            text, fitted = fit(words, size, max(tag.width, least), bold)
            texts.append(
                Text((x, base), text, fitted, INK, anchor="middle", bold=bold, layer=LAYER, viewport=source)
            )
            base -= GAP
        half = max(text_width(t.text, t.size, t.bold) for t in texts) / 2 + MARGIN
        low, high = y - height / 2 - MARGIN, y + height / 2 + MARGIN
        ground = ((x - half, low), (x + half, low), (x + half, high), (x - half, high))
        yield Fill((ground,), ground_colour, LAYER, source)
        yield from texts


def room_box(tag: RoomTag) -> Box:
    """What the name of a room takes on paper, with what is kept clear about it; mm."""
    ground = next(room_items([tag], ""))
    return bounds_of(ground)
