"""Sheets that differ from what was issued of them in the same revision: two sheets would go about under one
name."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        revision, fingerprint = sheet.issued
        if not fingerprint or fingerprint == sheet.fingerprint:
            continue
        now = sheet.sheet.field_values.get("revision", "")
        if now == revision:
            boxes = {each.field: each.box for each in sheet.display.fields}
            at = boxes["revision"].middle if "revision" in boxes else None
            named = f"revision {revision}" if revision else "no revision"
            words = f"It differs from what was issued with {named}. Raise its revision before it is issued."
            yield Found.on(sheet, words, at=at)


RULE = Rule("revision-not-raised", "Revision not raised", "warning", _find)
