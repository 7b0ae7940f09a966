"""Sheets that their device cannot plot, or cuts something off."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.plotting.print_warnings import cut_off


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        if sheet.why_not:
            yield Found.on(sheet, f"It cannot be plotted: {sheet.why_not}", subject="settings")
        elif sheet.page is not None and sheet.device is not None:
            names = {viewport.placed.id: viewport.placed.name for viewport in sheet.viewports}
            for each in cut_off(sheet.page, sheet.device, names):
                device = sheet.device.name.lower()
                words = f"{each.what}: beyond what the {device} prints. Move it inward, or plot it otherwise."
                yield Found.on(sheet, words, subject=each.what)


RULE = Rule("cannot-be-plotted", "Outside the printable area", "error", _find)
