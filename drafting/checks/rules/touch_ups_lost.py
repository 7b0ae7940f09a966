"""Touch-ups that no longer find what they choose."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet, viewport in checked.each_viewport():
        lost = sum(each.redrawn is None for each in viewport.placed.touched.touch_ups)
        if lost:
            what = f"{lost} touch-ups no longer find their lines"
            if lost == 1:
                what = "1 touch-up no longer finds its lines"
            words = f"{what} in “{viewport.placed.name}”. Look through the list, and delete or redo them."
            yield Found.on(sheet, words, viewport)


RULE = Rule("touch-ups-lost", "Touch-ups lost", "warning", _find)
