"""Annotation that no longer says what was meant when it was made."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.annotation.pieces import NAMES
from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule

_REMEDY = {"changed": "Accept the new figures, or attach it again.", "lost": "Attach it again, or delete it."}


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        for piece in sheet.display.pieces:
            if piece.standing != "followed":
                remedy = _REMEDY[piece.standing]
                became = "has changed" if piece.standing == "changed" else "is lost"
                words = f"A {NAMES[piece.kind]} {became}: {piece.words}. {remedy}"
                at = piece.box.middle
                yield Found.on(sheet, words, piece=piece.piece, subject=piece.viewport, at=at)


RULE = Rule("annotation-lost", "Annotation changed or lost", "error", _find)
