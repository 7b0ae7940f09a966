"""Drawings from an older version of the model, whose levels or north are others than those of the set."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

#: Levels that differ by less are the same, mm; north, degrees.
_SAME, _SAME_NORTH = 0.5, 0.01


def _find(checked: CheckedSet) -> Iterator[Found]:
    now = dict(checked.datum.levels)
    for sheet, viewport in checked.each_viewport():
        then = viewport.datum
        if then is None:
            continue
        name = viewport.placed.name
        moved = [each for each, level in then.levels if abs(now.get(each, level) - level) > _SAME]
        if moved:
            words = f"“{name}” is drawn from an older model, in which {moved[0]} lies at another level."
            yield Found.on(sheet, f"{words} Bring it up to date.", viewport, subject="level")
        if abs((then.north or 0.0) - (checked.datum.north or 0.0)) > _SAME_NORTH:
            words = f"“{name}” is drawn from an older model, in which north lies elsewhere."
            yield Found.on(sheet, f"{words} Bring it up to date.", viewport, subject="north")


RULE = Rule("unlike-levels", "Levels and north of an older model", "error", _find)
