"""Views that stand on no sheet."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    for view in checked.views:
        if not view.places:
            yield Found(f"“{view.name}” is placed nowhere. Place it, or delete it.", view=view.id)


RULE = Rule("views-unplaced", "Views on no sheet", "notice", _find)
