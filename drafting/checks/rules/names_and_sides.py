"""Elevations whose names say another side than they look at."""

from __future__ import annotations

import re
from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

_WORD = re.compile(r"\b(north|south|east|west)\b", re.IGNORECASE)


def _find(checked: CheckedSet) -> Iterator[Found]:
    for view in checked.views:
        if view.spec.kind != "elevation":
            continue
        named = {word.lower() for word in _WORD.findall(view.name)}
        true = view.spec.title
        said = {word.lower() for word in _WORD.findall(true)}
        if named and said and not named & said:
            place = next(((s, v) for s, v in checked.each_viewport() if v.view == view.id), None)
            words = (
                f"“{view.name}” shows what is the {true[:1].lower()}{true[1:]}. "
                "Rename it, or look from the other side."
            )
            yield Found.on(place[0], words, place[1]) if place else Found(words, view=view.id)


RULE = Rule("names-and-sides", "Names and sides", "error", _find)
