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
    # A drawing from others lies under or over one of the building on purpose.
    received = {view.id for view in checked.views if view.spec.kind == "received"}
    for sheet in checked.sheets:
        for one, other in combinations(sheet.viewports, 2):
            shared = intersection(one.seen, other.seen)
            meant = one.placed.opaque or other.placed.opaque or one.view in received or other.view in received
            if shared and not meant and min(shared.width, shared.height) > _SLACK:
                names = f"“{one.placed.name}” and “{other.placed.name}”"
                words = f"{names} lie over each other. Move one of them."
                yield Found.on(sheet, words, one, subject=other.placed.id, at=shared.middle)


RULE = Rule("over-each-other", "Drawings over each other", "error", _find)
