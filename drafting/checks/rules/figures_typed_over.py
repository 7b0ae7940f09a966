"""Dimensions and levels whose true figure is typed over."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        for piece in sheet.display.pieces:
            if piece.typed_over:
                words = f"“{piece.text}” is typed over a true figure. Restore it if it should follow."
                yield Found.on(sheet, words, piece=piece.piece, subject=piece.viewport, at=piece.box.middle)


RULE = Rule("figures-typed-over", "Figures typed over", "notice", _find)
