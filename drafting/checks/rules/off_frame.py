"""Viewports that reach beyond the frame of their sheet, or over its title block."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet, CheckedSheet
from drafting.checks.findings import Found, Rule
from drafting.geometry.boxes import Box

#: A frame line may be touched, mm.
_SLACK = 0.5
#: Parts of the template that nothing may lie over.
_KINDS = ("field", "text", "image")


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet, viewport in checked.each_viewport():
        name = viewport.placed.name
        if not _frame(sheet).holds(viewport.seen):
            words = f"“{name}” reaches beyond the frame. Move or crop it."
            yield Found.on(sheet, words, viewport, subject="frame")
        elif _over_title_block(sheet, viewport.seen):
            words = f"“{name}” lies over the title block. Move or crop it."
            yield Found.on(sheet, words, viewport, subject="block")


def _frame(sheet: CheckedSheet) -> Box:
    frame = sheet.sheet.blank.frame
    return Box(frame.x - _SLACK, frame.y - _SLACK, frame.width + 2 * _SLACK, frame.height + 2 * _SLACK)


def _over_title_block(sheet: CheckedSheet, seen: Box) -> bool:
    blank = sheet.sheet.blank
    return any(part.kind in _KINDS and blank.box_of(part).meets(seen) for part in sheet.sheet.template.parts)


RULE = Rule("off-frame", "Drawings beyond the frame", "error", _find)
