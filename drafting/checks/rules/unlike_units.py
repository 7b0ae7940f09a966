"""A set of which some is measured in feet and some in metres."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet, CheckedSheet, CheckedViewport
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    feet: list[tuple[CheckedSheet, CheckedViewport]] = []
    metric: list[tuple[CheckedSheet, CheckedViewport]] = []
    for sheet, viewport in checked.each_viewport():
        if viewport.placed.to_scale:
            (feet if viewport.placed.scale.feet else metric).append((sheet, viewport))
    fewer, unit = (feet, "feet") if len(feet) <= len(metric) else (metric, "metres")
    for sheet, viewport in fewer if feet and metric else ():
        words = (
            f"“{viewport.placed.name}” is drawn for {unit}, and most of the set is not. "
            "Choose its scale from the other ladder."
        )
        yield Found.on(sheet, words, viewport)


RULE = Rule("unlike-units", "Feet and metres in one set", "warning", _find)
