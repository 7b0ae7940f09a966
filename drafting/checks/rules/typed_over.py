"""What is typed over what would be filled in automatically: it does not follow."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.sheets.fields import FIELDS


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        boxes = {each.field: each.box for each in sheet.display.fields}
        for key, value in sheet.sheet.overrides.items():
            caption = FIELDS[key].caption if key in FIELDS else key
            words = f"“{caption}” is typed over: “{value}” does not follow. Restore it if it should."
            at = boxes[key].middle if key in boxes else None
            yield Found.on(sheet, words, subject=key, at=at, fix="restore")


RULE = Rule("typed-over", "Fields typed over", "notice", _find)
