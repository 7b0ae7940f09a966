"""Fields of the title block that the template shows and nobody has filled in."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.sheets.fields import FIELDS

#: Fields that may well be empty.
_OPTIONAL = ("supplementary_title", "department", "reference", "language", "revision")


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        values = sheet.sheet.field_values
        shown = {part.field: part for part in sheet.sheet.template.parts if part.kind == "field"}
        for key, part in shown.items():
            if key in FIELDS and key not in _OPTIONAL and not values.get(key, "").strip():
                at = sheet.sheet.blank.box_of(part).middle
                words = f"“{FIELDS[key].caption}” is empty. Fill it in at the sheet or the project."
                yield Found.on(sheet, words, subject=key, at=at)


RULE = Rule("empty-fields", "Empty fields", "warning", _find)
