"""Signs that the lettering has not: they come on paper as a blank."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.render.items import Text
from drafting.styles.lettering import lacks


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        for item in sheet.display.flat_items:
            missing = lacks(item.text, item.bold) if isinstance(item, Text) else ""
            if missing and isinstance(item, Text):
                words = f"“{item.text}” has signs that the lettering has not: {missing}. Write it otherwise."
                yield Found.on(sheet, words, subject=item.text, at=item.at)


RULE = Rule("letters-missing", "Signs that cannot be lettered", "error", _find)
