"""Drawings that do not show the model as it is now."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet, viewport in checked.each_viewport():
        name = viewport.placed.name
        if viewport.state == "out_of_date":
            yield Found.on(sheet, f"“{name}” is out of date. Bring it up to date.", viewport, fix="draw")
        elif viewport.state == "undrawn":
            yield Found.on(sheet, f"“{name}” has not been drawn yet. Draw it.", viewport, fix="draw")


RULE = Rule("drawings-behind", "Drawings out of date", "error", _find)
