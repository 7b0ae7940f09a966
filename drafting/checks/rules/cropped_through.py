"""Viewports that cut the building off: on purpose, or because it has grown."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

#: A line may lie so far beyond the outline, mm.
_SLACK = 0.5


def _find(checked: CheckedSet) -> Iterator[Found]:
    kinds = {view.id: view.spec.kind for view in checked.views}
    for sheet, viewport in checked.each_viewport():
        box, own = viewport.placed.box, viewport.building
        if own is None or kinds.get(viewport.view) == "detail" or not viewport.placed.to_scale:
            continue
        sides = {
            "left": own.x < box.x - _SLACK,
            "right": own.right > box.right + _SLACK,
            "bottom": own.y < box.y - _SLACK,
            "top": own.top > box.top + _SLACK,
        }
        cut = [name for name, is_cut in sides.items() if is_cut]
        if cut:
            where = " and ".join([", ".join(cut[:-1]), cut[-1]] if len(cut) > 1 else cut)
            name = viewport.placed.name
            words = f"“{name}” is cropped through the building ({where}). Fit the crop, or leave it."
            yield Found.on(sheet, words, viewport)


RULE = Rule("cropped-through", "Crops through the building", "notice", _find)
