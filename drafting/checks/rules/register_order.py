"""A register, and so a list of drawings, in which the numbers do not rise."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import pairwise

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for before, sheet in pairwise(checked.sheets):
        same_series = before.series == sheet.series
        if same_series and _order(sheet.number) < _order(before.number):
            words = f"It comes after {before.number} in the register. Move it, or give it another number."
            yield Found.on(sheet, words)


def _order(number: str) -> list[tuple[bool, int, str]]:
    """What numbers are put in order by: their figures count as figures."""
    parts = re.split(r"(\d+)", number)
    return [(part.isdigit(), int(part) if part.isdigit() else 0, part) for part in parts]


RULE = Rule("register-order", "Register out of order", "warning", _find)
