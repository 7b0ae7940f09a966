"""Drawings that lie over each other."""

from __future__ import annotations

from collections.abc import Iterator
from itertools import combinations

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.geometry.boxes import intersection

#: Margins of drawings may touch, mm.
_SLACK = 1.0


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        for one, other in combinations(sheet.viewports, 2):
            shared = intersection(one.seen, other.seen)
            hidden = one.placed.opaque or other.placed.opaque
            if shared and not hidden and min(shared.width, shared.height) > _SLACK:
                names = f"“{one.placed.name}” and “{other.placed.name}”"
                words = f"{names} lie over each other. Move one of them."
                yield Found.on(sheet, words, one, subject=other.placed.id, at=shared.middle)


RULE = Rule("over-each-other", "Drawings over each other", "error", _find)
