"""What a rule is, and what it finds."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal, get_args

from drafting.checks.checked import CheckedSet, CheckedSheet, CheckedViewport, Limit
from drafting.geometry.boxes import Point
from drafting.schema import CLOSED

#: How much a finding matters: the sheet is wrong; it may well be; it is good to know.
Severity = Literal["error", "warning", "notice"]
SEVERITIES: tuple[Severity, ...] = get_args(Severity)
#: What can be done about a finding at once: draw its view anew, let it follow the model again, or show a
#: field as it is filled in automatically.
Fix = Literal["", "draw", "release", "restore"]


@dataclass(frozen=True)
class Found:
    """What a rule has found.

    Attributes:
        words: a sentence that says what is wrong and what to do about it.
        sheet, viewport, view, piece: the ids of what it is about; blank where it is about none.
        subject: what tells it from others of its rule at its place, such as the key of a field.
        at: where on the sheet, paper mm.
        fix: what can be done about it at once.
    """

    words: str
    sheet: str = ""
    viewport: str = ""
    view: str = ""
    piece: str = ""
    subject: str = ""
    at: Point | None = None
    fix: Fix = ""

    @classmethod
    def on(
        cls,
        sheet: CheckedSheet,
        words: str,
        viewport: CheckedViewport | None = None,
        *,
        view: str = "",
        piece: str = "",
        subject: str = "",
        at: Point | None = None,
        fix: Fix = "",
    ) -> Found:
        """Found on a sheet; where it is about a viewport, in the middle of that."""
        if viewport is None:
            return cls(words, sheet.id, "", view, piece, subject, at, fix)
        placed = viewport.placed
        return cls(words, sheet.id, placed.id, viewport.view, piece, subject, at or placed.box.middle, fix)


@dataclass(frozen=True)
class Rule:
    """Something that is checked.

    Attributes:
        key: by which it is known for ever; a waiver refers to it.
        name: what it is called on the screen.
        severity: how much its findings matter where nobody has said otherwise.
        find: looks for it.
        limits: the figures that it goes by.
    """

    key: str
    name: str
    severity: Severity
    find: Callable[[CheckedSet], Iterator[Found]]
    limits: tuple[Limit, ...] = ()


@dataclass(frozen=True, kw_only=True)
class Finding(Found):
    """A finding with its rule. `key` is the same when the set is checked again, so that it can be waived."""

    __pydantic_config__ = CLOSED

    key: str
    rule: str
    severity: Severity


def finding(rule: Rule, found: Found) -> Finding:
    """What was found, under the key by which it is known again."""
    parts = (rule.key, found.sheet, found.viewport, found.view, found.piece, found.subject)
    key = hashlib.sha256("\n".join(parts).encode()).hexdigest()[:24]
    return Finding(**vars(found), key=key, rule=rule.key, severity=rule.severity)
