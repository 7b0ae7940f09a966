"""Sheets with nothing on them, and viewports that show nothing of the building."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.geometry.boxes import intersection


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        if not sheet.viewports and not sheet.display.pieces and not sheet.display.tables:
            yield Found.on(sheet, "Nothing stands on it. Place a view, or delete the sheet.")
    for sheet, viewport in checked.each_viewport():
        if viewport.building is not None and intersection(viewport.placed.box, viewport.building) is None:
            words = (
                f"“{viewport.placed.name}” shows nothing of the building. Fit its crop, or move its contents."
            )
            yield Found.on(sheet, words, viewport)


RULE = Rule("empty-sheets", "Empty sheets and viewports", "warning", _find)
