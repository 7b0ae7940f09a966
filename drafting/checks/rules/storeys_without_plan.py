"""Storeys of which no plan is placed."""

from __future__ import annotations

from collections.abc import Iterator

from drafting.building.model import Storey, storey_in
from drafting.checks.checked import CheckedSet
from drafting.checks.findings import Found, Rule
from drafting.views.plan import Plan


def _find(checked: CheckedSet) -> Iterator[Found]:
    storeys = [Storey(name, 0.0) for name in checked.storeys]
    planned = {
        storey.name
        for view in checked.views
        if isinstance(view.spec, Plan) and view.places and (storey := storey_in(storeys, view.spec.storey))
    }
    for name in checked.storeys:
        if name not in planned and checked.sheets:
            yield Found(f"No plan of the storey “{name}” is placed. Place one.", subject=name)


RULE = Rule("storeys-without-plan", "Storeys without a plan", "warning", _find)
