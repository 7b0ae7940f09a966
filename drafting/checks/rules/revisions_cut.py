"""Revision tables that have no room for all revisions: the oldest are not on paper."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.render.template_items import revision_rows


def _find(checked: CheckedSet) -> Iterator[Found]:
    for sheet in checked.sheets:
        made = sheet.sheet
        boxes = [made.blank.box_of(part) for part in made.template.parts if part.kind == "revisions"]
        room = max(map(revision_rows, boxes), default=0)
        if boxes and len(made.revisions) > room:
            words = (
                f"Its revision table shows the newest {room} of {len(made.revisions)} revisions. "
                "Give it more room in the template, or delete the oldest."
            )
            yield Found.on(sheet, words, at=boxes[0].middle)


RULE = Rule("revisions-cut", "Revisions without room", "notice", _find)
