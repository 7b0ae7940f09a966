"""Words that a heavy line runs through, where they have no paper of their own."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
import shapely

from drafting.checks.checked import CheckedSet, CheckedSheet, Limit
from drafting.checks.findings import Found, Rule
from drafting.checks.placed_lines import placed_lines
from drafting.render.items import Fill, Text
from drafting.styles.lettering import text_width
from drafting.styles.pens import PAPER

_KEY = "text-over-lines"
HEAVY = Limit("heavy", "Lines are heavy from", "mm", 0.35, 0.05, 2.0)
#: So much of the edge of words may be touched, mm.
SLACK = 0.3


def _find(checked: CheckedSet) -> Iterator[Found]:
    heavy = checked.limit(_KEY, HEAVY)
    for sheet in checked.sheets:
        lines = [each.points for each in placed_lines(sheet, heavy)]
        if not lines:
            continue
        tree = shapely.STRtree(shapely.points(np.concatenate(lines)))
        for text, covered in _words(sheet):
            box = _box_of(text)
            under = tree.query(box, predicate="contains")
            points = tree.geometries[under]
            if covered:
                points = points[~shapely.covers(shapely.union_all(covered), points)]
            if len(points) > 1:
                words = f"A heavy line runs through “{text.text}”. Move the words."
                yield Found.on(sheet, words, subject=text.text, at=text.at)


def _words(sheet: CheckedSheet) -> Iterator[tuple[Text, list[shapely.Polygon]]]:
    """Words on drawings, and the paper that was laid near them before they were lettered."""
    papers: list[shapely.Polygon] = []
    for item in sheet.display.flat_items:
        if isinstance(item, Fill) and item.colour == PAPER and item.opacity >= 1:
            papers.append(shapely.Polygon(item.rings[0]))
        elif isinstance(item, Text) and item.viewport and item.text.strip():
            box = _box_of(item)
            yield item, [paper for paper in papers if paper.intersects(box)]


def _box_of(text: Text) -> shapely.Polygon:
    """What the capitals of a line cover, without its edge."""
    wide = text_width(text.text, text.size, text.bold)
    left = {"start": 0.0, "middle": -wide / 2, "end": -wide}[text.anchor]
    corners = np.array(
        [
            (left + SLACK, SLACK),
            (left + wide - SLACK, SLACK),
            (left + wide - SLACK, text.size - SLACK),
            (left + SLACK, text.size - SLACK),
        ]
    )
    turn = np.radians(text.turn)
    matrix = np.array([[np.cos(turn), np.sin(turn)], [-np.sin(turn), np.cos(turn)]])
    return shapely.Polygon(corners @ matrix + np.array(text.at))


RULE = Rule(_KEY, "Words over heavy lines", "warning", _find, (HEAVY,))
