"""Drawings that are kept at an older version of the model on purpose."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet, viewport in checked.each_viewport():
        if viewport.state == "held":
            name = viewport.placed.name
            words = f"“{name}” is held at an older version of the model. Release it if it is to follow."
            yield Found.on(sheet, words, viewport, fix="release")


RULE = Rule("drawings-held", "Drawings held", "notice", _find)
