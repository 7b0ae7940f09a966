"""Numbers of sheets that are there twice, or that leave others out."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        if sheet.number_warning:
            odd = sheet.number_warning
            words = f"The number {sheet.number} is odd: {odd}. Number the sheets on from one before it."
            yield Found.on(sheet, words)


RULE = Rule("sheet-numbers", "Numbers of sheets", "warning", _find)
