"""Marks that point to a view that stands on no sheet."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    names = {view.id: view.name for view in checked.views}
    for sheet in checked.sheets:
        for viewport, about in sheet.sheet.marks.items():
            for mark in about.marks:
                if mark.points_nowhere:
                    name = names.get(mark.subject, "")
                    words = f"“{name}” is marked here but is placed nowhere. Place it, or hide its mark."
                    at = mark.bubbles[0] if mark.bubbles else None
                    yield Found.on(sheet, words, view=mark.subject, subject=viewport, at=at)


RULE = Rule("marks-nowhere", "Marks that point nowhere", "warning", _find)
