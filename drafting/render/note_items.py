"""Notes as they are drawn: words on paper of their own, and leaders (ISO 128-2)."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.annotation.notes import Note, leader_line, note_box, note_lines
from drafting.annotation.pieces import PlacedPiece
from drafting.geometry.boxes import Point
from drafting.render.items import Fill, Path, Text
from drafting.styles.pens import INK, PAPER, Pen

LAYER = "Notes"
LEADER_PEN = Pen(0.18)
#: The length and half breadth of an arrow, the radius of a dot; what is kept clear about words; mm.
ARROW, ARROW_HALF, DOT, MARGIN = 3.0, 0.5, 0.7, 0.5


def note_items(placed: PlacedPiece, note: Note, source: str) -> Iterator[Path | Fill | Text]:
    """The leaders of a note, and its words."""
    first, *arms = placed.points
    corner = first[0] + note.offset[0], first[1] + note.offset[1]
    if note.leader != "none":
        for tip in (first, *arms):
            leader = leader_line(note, corner, tip)
            yield Path(leader, LEADER_PEN, LAYER, source)
            yield from _end(note, tip, leader[1], source)
    box = note_box(note, corner)
    left, low = box.x - MARGIN, box.y - MARGIN
    right, high = box.right + MARGIN, box.top + MARGIN
    yield Fill((((left, low), (right, low), (right, high), (left, high)),), PAPER, LAYER, source)
    for line in note_lines(note):
        at = corner[0] + line.x, corner[1] + line.y
        yield Text(at, line.text, note.size, INK, bold=note.bold, layer=LAYER, viewport=source)


def _end(note: Note, tip: Point, back: Point, source: str) -> Iterator[Fill]:
    """What ends a leader: an arrow on a line, a dot within an area."""
    if note.leader == "arrow":
        length = math.dist(tip, back) or 1.0
        x, y = (back[0] - tip[0]) / length, (back[1] - tip[1]) / length
        base = tip[0] + x * ARROW, tip[1] + y * ARROW
        sides = [(base[0] - y * ARROW_HALF * k, base[1] + x * ARROW_HALF * k) for k in (1, -1)]
        yield Fill(((tip, *sides),), INK, LAYER, source)
    elif note.leader == "dot":
        turns = (2 * math.pi * k / 24 for k in range(24))
        ring = tuple((tip[0] + DOT * math.cos(a), tip[1] + DOT * math.sin(a)) for a in turns)
        yield Fill((ring,), INK, LAYER, source)
