"""Bubbles of marks and grid lines that lie over the drawing, or over each other."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations
from typing import NamedTuple

import numpy as np

from drafting.checks.checked import CheckedSet, CheckedSheet, Limit
from drafting.checks.findings import Found, Rule
from drafting.checks.placed_lines import placed_lines
from drafting.geometry.boxes import Point
from drafting.render.backends.extents import bounds_of
from drafting.render.items import Fill
from drafting.styles.pens import PAPER

_KEY = "marks-over-drawing"
HEAVY = Limit("heavy", "Lines of the drawing count from", "mm", 0.3, 0.05, 2.0)
#: So much of a bubble's rim may be touched, mm; what is larger or smaller is no bubble.
SLACK, MIN_RADIUS, MAX_RADIUS = 0.5, 2.0, 12.0
#: A ring of fewer corners, or less round, is none.
CORNERS, ROUND = 12, 0.02


class _Bubble(NamedTuple):
    at: Point
    radius: float


def _find(checked: CheckedSet) -> Iterator[Found]:
    heavy = checked.limit(_KEY, HEAVY)
    for sheet in checked.sheets:
        bubbles = list(dict.fromkeys(_bubbles(sheet)))
        for first, second in combinations(bubbles, 2):
            if math.dist(first.at, second.at) < first.radius + second.radius - SLACK:
                words = "Two bubbles lie over each other. Drag one aside, or crop the viewports apart."
                yield Found.on(sheet, words, subject=_name(first), at=first.at)
        points = [each.points for each in placed_lines(sheet, heavy)]
        if not bubbles or not points:
            continue
        drawn = np.concatenate(points)
        for bubble in bubbles:
            away = np.hypot(*(drawn - np.array(bubble.at)).T)
            if np.count_nonzero(away < bubble.radius - SLACK) > 1:
                words = "A bubble lies over the drawing. Drag it aside, or move the line that it belongs to."
                yield Found.on(sheet, words, subject=_name(bubble), at=bubble.at)


def _name(bubble: _Bubble) -> str:
    return f"{bubble.at[0]:.0f}, {bubble.at[1]:.0f}"


def _bubbles(sheet: CheckedSheet) -> Iterator[_Bubble]:
    """The round areas of paper that are laid under the words of a mark."""
    for item in sheet.display.flat_items:
        if not isinstance(item, Fill) or item.colour != PAPER or len(item.rings[0]) < CORNERS:
            continue
        box = bounds_of(item)
        if not MIN_RADIUS <= box.width / 2 <= MAX_RADIUS:
            continue
        from_middle = [math.dist(box.middle, corner) for corner in item.rings[0]]
        if max(from_middle) - min(from_middle) < ROUND * max(from_middle):
            yield _Bubble((round(box.middle[0], 3), round(box.middle[1], 3)), box.width / 2)


RULE = Rule(_KEY, "Bubbles over the drawing", "warning", _find, (HEAVY,))
