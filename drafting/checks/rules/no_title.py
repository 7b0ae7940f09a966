"""Sheets without a title."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        if not sheet.sheet.field_values.get("title", "").strip():
            yield Found.on(sheet, "It has no title. Type one in its title block.")


RULE = Rule("no-title", "Sheets without a title", "error", _find)
