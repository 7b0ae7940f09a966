"""Scales that no scale rule has."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.sheets.scale import FEET_LADDER, LADDER

_KNOWN = {scale.ratio for scale in (*LADDER, *FEET_LADDER)}


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet, viewport in checked.each_viewport():
        placed = viewport.placed
        if placed.to_scale and placed.scale.ratio not in _KNOWN:
            words = (
                f"“{placed.name}” is at {placed.scale}, which is on no scale rule. Choose one of the ladder."
            )
            yield Found.on(sheet, words, viewport)


RULE = Rule("scales-off-ladder", "Unusual scales", "warning", _find)
