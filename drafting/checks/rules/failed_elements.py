"""Elements that could not be read from the building file: they are missing in what is drawn."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule


def _find(checked: CheckedSet) -> Iterator[Found]:
    if checked.failed and any(view.places for view in checked.views):
        first, more = checked.failed[0], len(checked.failed) - 1
        others = f" and {more} more" if more else ""
        verb = "are" if more else "is"
        yield Found(
            f"“{first}”{others} could not be read from the building file and {verb} missing in the drawings. "
            "Have the file written anew, or draw what is missing."
        )


RULE = Rule("failed-elements", "Elements that could not be read", "error", _find)
