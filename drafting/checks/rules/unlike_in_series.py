"""Sheets of one series that start from different templates, or are drawn with different pens."""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Iterator

from drafting.checks.checked import CheckedSet, CheckedSheet
from drafting.checks.findings import Found, Rule

_WHAT = {"template": "starts from another template", "pens": "is drawn with other pens"}


def _find(checked: CheckedSet) -> Iterator[Found]:
    series: dict[str, list[CheckedSheet]] = defaultdict(list)
    for sheet in checked.sheets:
        series[sheet.series].append(sheet)
    for sheets in series.values():
        for name, words in _WHAT.items():
            usual, often = Counter(getattr(sheet, name) for sheet in sheets).most_common(1)[0]
            for sheet in sheets:
                if getattr(sheet, name) != usual and often > len(sheets) / 2:
                    yield Found.on(sheet, f"It {words} than the other sheets of its series.", subject=name)


RULE = Rule("unlike-in-series", "Unlike the rest of its series", "notice", _find)
