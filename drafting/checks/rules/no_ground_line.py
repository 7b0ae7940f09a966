"""Elevations and sections of a building that stands on nothing."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.views.elevation import Elevation
from drafting.views.section import Section


def _find(checked: CheckedSet) -> Iterator[Found]:
    if checked.has_ground:
        return
    upright = [view for view in checked.views if isinstance(view.spec, Elevation | Section) and view.places]
    for view in upright:
        words = (
            f"“{view.name}” has no ground line: the building file has no terrain. "
            "Give the level of the ground at the Model station."
        )
        yield Found(words, view=view.id)


RULE = Rule("no-ground-line", "Elevations without ground", "notice", _find)
