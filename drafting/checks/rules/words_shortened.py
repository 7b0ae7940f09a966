"""Words that are cut short because their place is too small."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.render.items import Text
from drafting.styles.lettering import ELLIPSIS


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        said = set(sheet.sheet.field_values.values())
        for item in sheet.display.flat_items:
            # Whoever types the sign means it.
            if isinstance(item, Text) and item.text.endswith(ELLIPSIS) and item.text not in said:
                words = f"“{item.text}” is cut short: its place is too small. Shorten the words."
                yield Found.on(sheet, words, subject=item.text, at=item.at)


RULE = Rule("words-shortened", "Words cut short", "warning", _find)
