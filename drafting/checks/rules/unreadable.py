"""What stands on sheets but was damaged where it is stored."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

_REMEDY = "Delete it, or restore a backup."


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet, reason in checked.uncomposed:
        yield Found(f"It cannot be composed: {reason}", sheet=sheet, subject="sheet")
    for each in checked.sheets:
        for sentence in each.sheet.unreadable:
            yield Found.on(each, f"{sentence} {_REMEDY}", subject=sentence)


RULE = Rule("unreadable", "Unreadable data", "error", _find)
