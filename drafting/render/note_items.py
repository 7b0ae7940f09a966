"""Notes as they are drawn: words on paper of their own, or the number of one in a mark; and leaders."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.annotation.notes import Note, leader_line, note_box, note_lines
from drafting.annotation.numbered_notes import NumberedNote
from drafting.annotation.pieces import PlacedPiece
from drafting.geometry.boxes import Point
from drafting.render.items import ANCHORS, Fill, FlatItem, Path, Text, Worded
from drafting.render.leader_items import LEADER_PEN, leader_end
from drafting.styles.lettering import text_width
from drafting.styles.pens import INK, PAPER, Pen

LAYER = "Notes"
#: What is kept clear about words; of a mark its line, the height of its number, and its height; mm.
MARGIN = 0.5
MARK_PEN, NUMBER_SIZE, MARK_HIGH = Pen(0.25), 2.5, 6.0


def note_items(placed: PlacedPiece, note: Note, source: str) -> Iterator[Path | Fill | Text]:
    """The leaders of a note, and its words."""
    first = placed.points[0]
    corner = first[0] + note.offset[0], first[1] + note.offset[1]
    if note.leader != "none":
        for tip in placed.points:
            leader = leader_line(note, corner, tip)
            yield Path(leader, LEADER_PEN, LAYER, source)
            yield from leader_end(note.leader, tip, leader[1], LAYER, source)
    box = note_box(note, corner)
    left, low = box.x - MARGIN, box.y - MARGIN
    right, high = box.right + MARGIN, box.top + MARGIN
    yield Fill((((left, low), (right, low), (right, high), (left, high)),), PAPER, LAYER, source)
    for line in note_lines(note):
        at = corner[0] + line.x, corner[1] + line.y
        yield Text(at, line.text, note.size, note.colour, bold=note.bold, layer=LAYER, viewport=source)


def numbered_note_items(placed: PlacedPiece, note: NumberedNote, source: str) -> Iterator[Path | Fill | Text]:
    """The leaders of a numbered note, and its number in its mark."""
    x, y = placed.points[0][0] + note.offset[0], placed.points[0][1] + note.offset[1]
    number = placed.label[0] if placed.label else "?"
    ring = _mark(note, (x, y), text_width(number, NUMBER_SIZE, bold=True))
    if note.leader != "none":
        for tip in placed.points:
            start = min(ring, key=lambda corner: math.dist(corner, tip))
            if math.dist((x, y), tip) > MARK_HIGH / 2:
                yield Path((tip, start), LEADER_PEN, LAYER, source)
                yield from leader_end(note.leader, tip, start, LAYER, source)
    yield Fill((ring,), PAPER, LAYER, source)
    yield Path(ring, MARK_PEN, LAYER, source, closed=True)
    at = x, y - NUMBER_SIZE / 2
    yield Text(at, number, NUMBER_SIZE, INK, anchor="middle", bold=True, layer=LAYER, viewport=source)


def _mark(note: NumberedNote, at: Point, wide: float) -> tuple[Point, ...]:
    """The outline about a number, as wide as that needs."""
    half = max(MARK_HIGH, wide + NUMBER_SIZE) / 2
    x, y = at
    if note.mark == "box":
        low, high = y - MARK_HIGH / 2, y + MARK_HIGH / 2
        return (x - half, low), (x, low), (x + half, low), (x + half, y), (x + half, high), (x, high), \
            (x - half, high), (x - half, y)  # fmt: skip
    sides = 6 if note.mark == "hexagon" else 48
    turns = (2 * math.pi * k / sides for k in range(sides))
    wider = half * (1.12 if note.mark == "hexagon" else 1.0)
    return tuple((x + wider * math.cos(a), y + wider * math.sin(a)) for a in turns)


def worded(placed: PlacedPiece, note: Note, parts: list[FlatItem]) -> Worded:
    """A note with its paragraphs and leaders, for outputs that have such things of their own."""
    x, y = placed.points[0][0] + note.offset[0], placed.points[0][1] + note.offset[1]
    leaders = [leader_line(note, (x, y), tip) for tip in placed.points] if note.leader != "none" else []
    return Worded(
        tuple(parts),
        note.text,
        (x, y),
        note.width,
        note.size,
        note.colour,
        note.bold,
        ANCHORS[note.align],
        tuple(leaders),
        note.leader == "arrow",
        LAYER,
        placed.viewport.id if placed.viewport else "",
    )
