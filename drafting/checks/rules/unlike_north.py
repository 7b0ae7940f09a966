"""Plans of a set that are turned in different ways: north lies now here, now there."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

_KINDS = ("plan", "roof")


def _find(checked: CheckedSet) -> Iterator[Found]:
    plans = {view.id for view in checked.views if view.spec.kind in _KINDS}
    found = [(s, v, round(v.placed.turn, 2) % 360) for s, v in checked.each_viewport() if v.view in plans]
    turns = Counter(turn for _, _, turn in found)
    if len(turns) < 2:
        return
    usual = max(turns, key=lambda turn: (turns[turn], -turn))
    for sheet, viewport, turn in found:
        if turn != usual:
            words = (
                f"“{viewport.placed.name}” is turned by {turn:g}°, most plans of the set by {usual:g}°. "
                "Turn it alike."
            )
            yield Found.on(sheet, words, viewport)


RULE = Rule("unlike-north", "Plans turned differently", "notice", _find)
