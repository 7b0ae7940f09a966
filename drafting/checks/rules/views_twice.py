"""Views that are placed several times: one of the drawings may have been forgotten there."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for view in checked.views:
        places = [(sheet, each) for sheet, each in checked.each_viewport() if each.view == view.id]
        looks = [(each.placed.scale_text, each.placed.appearance) for _, each in places]
        # At another scale, or in another light, it is meant: a key plan, a larger one, a sun study.
        if len(set(looks)) < len(looks):
            sheet, viewport = next(place for k, place in enumerate(places) if looks[k] in looks[:k])
            numbers = ", ".join(dict.fromkeys(each.number for each, _ in places))
            words = f"“{view.name}” is placed more than once at {viewport.placed.scale_text}: on {numbers}."
            yield Found.on(sheet, f"{words} Delete what is not wanted.", viewport)


RULE = Rule("views-twice", "Views placed twice", "notice", _find)
