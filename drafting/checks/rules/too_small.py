"""Lettering and lines that are lost on paper, as the sheet is plotted (ISO 3098, ISO 128-2)."""

from __future__ import annotations

import math
from collections.abc import Iterator

from drafting.checks.checked import CheckedSet, Limit
from drafting.checks.findings import Found, Rule
from drafting.plotting.print_warnings import widths
from drafting.render.items import Text
from drafting.styles.lettering import MIN_TEXT_HEIGHT
from drafting.styles.pens import NARROWEST

_SLACK = 1e-6
_KEY = "too-small"
TEXT = Limit("text", "Lettering at least", "mm", MIN_TEXT_HEIGHT, 0.5, 10.0)
LINE = Limit("line", "Lines at least", "mm", NARROWEST, 0.05, 1.0)


def _find(checked: CheckedSet) -> Iterator[Found]:
    least_text, least_line = checked.limit(_KEY, TEXT), checked.limit(_KEY, LINE)
    for sheet in checked.sheets:
        if sheet.page is None:
            continue
        by = sheet.page.scale
        small = [
            item
            for item in sheet.page.display.flat_items
            if isinstance(item, Text) and item.size * by < least_text - _SLACK
        ]
        if small:
            least = min(small, key=lambda item: item.size)
            words = (
                f"“{least.text}” is plotted {least.size * by:.2f} mm high; under {least_text:g} mm it "
                "may not read. Make it larger, or plot it larger."
            )
            yield Found.on(sheet, words, subject="text", at=least.at)
        thinnest = min(widths(sheet.page.display), default=math.inf) * by
        if thinnest < least_line - _SLACK:
            words = (
                f"Lines are plotted {thinnest:.3f} mm wide; under {least_line:g} mm they may be lost. "
                "Choose wider pens, or plot it larger."
            )
            yield Found.on(sheet, words, subject="lines")


RULE = Rule(_KEY, "Too small to read", "warning", _find, (TEXT, LINE))
